export { blueprint, cell, blankBlueprint, fits, type Blueprint, type Candidate, type Cell } from './schema'
export { solveBlueprint, type Proposal, type Shortfall } from './solve'
export type { Solved, Solver } from './program'
