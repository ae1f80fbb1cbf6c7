import { childrenOf, textOf, type XmlElement } from '../../../xml'
import { numeric, hundredths, refuse, shapeOf, type Context, type Found, declared, idOf } from '../reading'

export function spotOf(context: Context, node: XmlElement): Found {
  const response = declared(context, node)
  const picture = [...childrenOf(node, 'object'), ...childrenOf(node, 'img')][0]
  if (!picture) return refuse('There is no picture to mark.')
  const spots = Math.max(1, Math.min(20, numeric(node.attributes.maxChoices, 1) || 1))
  const place = node.name === 'hotspotInteraction'
  const worth =
    (place
      ? response.mapping?.entries.find((entry) => entry.value > 0)?.value
      : response.areas.find((each) => each.value > 0)?.value) ?? 1
  const rightIds = new Set(
    response.correct.length
      ? response.correct
      : response.mapping?.entries.filter((entry) => entry.value > 0).map((entry) => entry.key),
  )
  const regions = place
    ? childrenOf(node, 'hotspotChoice').flatMap((each, i) => {
        const shape = shapeOf(each)
        return shape
          ? [
              {
                id: idOf(each, i),
                shape,
                right: rightIds.has(each.attributes.identifier ?? ''),
                label: each.attributes.hotspotLabel ?? `Place ${i + 1}`,
                comment: '',
              },
            ]
          : []
      })
    : response.areas.map((each, i) => ({
        id: `r${i + 1}`,
        shape: each.shape,
        right: each.value > 0,
        label: '',
        comment: '',
      }))
  return {
    kind: 'spot',
    body: {
      picture: picture.attributes.data ?? picture.attributes.src ?? '',
      alt: picture.attributes.alt ?? textOf(picture).trim(),
      width: numeric(picture.attributes.width),
      height: numeric(picture.attributes.height),
      by: place ? 'place' : 'point',
      spots,
      wrongCost: hundredths(
        Math.min(1, Math.max(0, -(place ? (response.mapping?.wrong ?? 0) : response.wrong) / worth)),
      ),
      regions,
    },
  } as Found
}
