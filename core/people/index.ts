export { alikeName, byName, cleanName, longestName, nameFault, namesakes } from './names'
export { longestPassword, passwordFault, shortestPassword } from './password'
export { joinCode, shownCode, typedCode } from './join-code'
export { needWords } from './needs'
