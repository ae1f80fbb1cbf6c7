import { z } from 'zod'
import { blueprint } from '../../../../core/blueprint'
import { id } from '../../../../core/question'
import { scope } from '../../../domain/blueprints/candidates'
import { inThread } from '../../../utils/job'
import { route } from '../../../utils/route'

export default route({
  right: 'quizTeacher',
  params: z.object({ id }),
  body: z.strictObject({ blueprint, within: scope, seed: z.int().min(0).max(1_000_000_000).nullable() }),
  handle: (context) => inThread(context, 'proposeFor', [context.person, context.params.id, context.body, context.now]),
})
