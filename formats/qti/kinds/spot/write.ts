import { exact } from '../../../../core/kit/exact'
import type { Shape } from '../../../../core/kit/shapes'
import type { Question } from '../../../../core/question'
import { element } from '../../../xml'
import { type Parts, decimal, declaration, mapping, prompt } from '../writing'

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
  const { regions, spots, picture, alt, width, height, by, wrongCost } = question.body
  const image = element('object', { type: 'image/png', data: picture, width, height }, alt)
  const right = regions.filter((region) => region.right)
  const worth = decimal(`1/${Math.max(1, Math.min(spots, right.length))}`)
  if (by === 'place') {
    return {
      declarations: [
        declaration(
          'RESPONSE',
          spots === 1 ? 'single' : 'multiple',
          'identifier',
          right.map((region) => region.id).slice(0, spots),
          mapping(
            right.map((region) => [region.id, worth]),
            { lower: 0, upper: 1, wrong: decimal(exact(worth).mul(exact(wrongCost)).neg()) },
          ),
        ),
      ],
      body: [
        element(
          'hotspotInteraction',
          { responseIdentifier: 'RESPONSE', maxChoices: spots },
          prompt(question),
          image,
          regions.map((region) =>
            element('hotspotChoice', { identifier: region.id, ...area(region.shape), hotspotLabel: region.label }),
          ),
        ),
      ],
      processing: element('responseProcessing', { template: 'map_response' }),
    }
  }
  return {
    declarations: [
      element(
        'responseDeclaration',
        { identifier: 'RESPONSE', cardinality: spots === 1 ? 'single' : 'multiple', baseType: 'point' },
        element(
          'areaMapping',
          { lowerBound: 0, upperBound: 1, defaultValue: decimal(exact(worth).mul(exact(wrongCost)).neg()) },
          right.map((region) => element('areaMapEntry', { ...area(region.shape), mappedValue: worth })),
        ),
      ),
    ],
    body: [
      element('selectPointInteraction', { responseIdentifier: 'RESPONSE', maxChoices: spots }, prompt(question), image),
    ],
    processing: element('responseProcessing', { template: 'map_response_point' }),
  }
}
