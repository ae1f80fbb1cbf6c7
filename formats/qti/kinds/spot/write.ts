import { exact, sum } from '../../../../core/kit/exact'
import type { Shape } from '../../../../core/kit/shapes'
import type { Question } from '../../../../core/question'
import { element } from '../../../xml'
import {
  asked,
  base,
  declaration,
  firstOf,
  legal,
  mappedBy,
  mapping,
  matched,
  outcome,
  variable,
  worth,
  type Parts,
} from '../writing'

function area(shape: Shape): { shape: string; coords: string } {
  switch (shape.is) {
    case 'circle':
      return { shape: 'circle', coords: [shape.x, shape.y, shape.r].join(',') }
    case 'rectangle':
      return { shape: 'rect', coords: [shape.x, shape.y, shape.x + shape.width, shape.y + shape.height].join(',') }
    case 'polygon':
      return { shape: 'poly', coords: shape.points.flatMap(({ x, y }) => [x, y]).join(',') }
  }
}

export function spot(question: Extract<Question, { kind: 'spot' }>): Parts {
  const { regions, spots, picture, alt, width, height, by, rule, wrongCost } = question.body
  // Its media type is set where the file's own name is known.
  const image = element('object', { type: 'image/png', data: picture, width, height }, alt)
  const credit = (region: (typeof regions)[number]) => exact(region.credit ?? (region.right ? 1 : 0))
  const counted = regions.filter((region) => region.right || region.credit !== undefined)
  const missed = regions.filter((region) => !counted.includes(region))
  const best = counted
    .map(credit)
    .filter((each) => each.compare(0) > 0)
    .sort((a, b) => b.compare(a))
    .slice(0, spots)
  const most = sum(best)
  const share = (amount: ReturnType<typeof exact>) => worth(question, most.equals(0) ? 0 : amount.div(most))
  const bounds = { lower: 0, upper: worth(question, 1) }
  const usual = share(exact(wrongCost).neg())
  const { above, prompt } = asked(question)
  if (by === 'place') {
    const full = counted.filter((region) => credit(region).compare(0) > 0)
    // All or nothing is the key as a whole, as long as the key is all that can be asked for.
    const whole = rule === 'all' && full.length <= spots
    return {
      declarations: [
        declaration(
          'RESPONSE',
          spots === 1 ? 'single' : 'multiple',
          'identifier',
          full.slice(0, spots).map((region) => legal(region.id)),
          whole
            ? null
            : mapping(
                counted.map((region) => ({ key: legal(region.id), worth: share(credit(region)) })),
                { ...bounds, usual },
              ),
        ),
      ],
      body: [
        ...above,
        element(
          'hotspotInteraction',
          { responseIdentifier: 'RESPONSE', maxChoices: spots },
          prompt,
          image,
          regions.map((region) =>
            element('hotspotChoice', {
              identifier: legal(region.id),
              ...area(region.shape),
              hotspotLabel: region.label || null,
            }),
          ),
        ),
      ],
      template: whole ? 'match_correct' : 'map_response',
      rules: whole ? matched(question) : mappedBy('mapResponse'),
      comments: regions
        .filter(({ comment }) => comment)
        .map((region) => ({
          html: region.comment,
          when: element('member', {}, base('identifier', legal(region.id)), variable('RESPONSE')),
        })),
      responses: ({ chosen = [] }: { chosen?: string[] }) => ({ RESPONSE: chosen.map(legal) }),
    }
  }
  // A miss takes so much that the sum falls short of the whole.
  const wholeUsual = worth(question, -1)
  return {
    declarations: [
      element(
        'responseDeclaration',
        { identifier: 'RESPONSE', cardinality: spots === 1 ? 'single' : 'multiple', baseType: 'point' },
        element(
          'areaMapping',
          { lowerBound: 0, upperBound: bounds.upper, defaultValue: rule === 'all' ? wholeUsual : usual },
          // Regions that are a miss come last, so that they take no mark from the others; each counts once there.
          [...counted, ...(rule === 'share' && (wrongCost === 0 || spots === 1) ? missed : [])].map((region) =>
            element('areaMapEntry', {
              ...area(region.shape),
              mappedValue: missed.includes(region) ? usual : share(credit(region)),
            }),
          ),
        ),
      ),
    ],
    body: [
      ...above,
      element('selectPointInteraction', { responseIdentifier: 'RESPONSE', maxChoices: spots }, prompt, image),
    ],
    ...(rule === 'all' ? {} : { template: 'map_response_point' as const }),
    rules:
      rule === 'all'
        ? [
            firstOf([
              {
                condition: element(
                  'gte',
                  {},
                  element('mapResponsePoint', { identifier: 'RESPONSE' }),
                  base('float', worth(question, '0.9999')),
                ),
                then: outcome(base('float', worth(question, 1))),
              },
            ]),
          ]
        : mappedBy('mapResponsePoint'),
    comments: regions
      .filter(({ comment }) => comment)
      .map((region) => ({ html: region.comment, when: element('inside', area(region.shape), variable('RESPONSE')) })),
    responses: ({ points = [] }: { points?: { x: number; y: number }[] }) => ({
      RESPONSE: points.map(({ x, y }) => `${x} ${y}`),
    }),
  }
}
