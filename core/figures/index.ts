export { figuresFor, choose, drawnBounds, powerOfTen, type Coverage, type Figures, type QuestionFacts } from './figures'
