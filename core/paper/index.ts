export { compilePaper, type CompileOptions } from './compile'
export { drawPools, unsatisfiable, CannotDraw, type Demand } from './draw'
export { sealPaper, questionOnPaper } from './seal'
export { paper, sheet, type Paper, type PaperItem, type Sheet, type SheetEntry, type SheetQuestion } from './schema'
