/**
 * What may stand in what, and with which attributes: the content models of 1EdTech QTI 2.1, 2.2 and 3.0, as far as they
 * concern what Thistle writes. Written down from memory of the standards' schemas, apart from the writer, and stricter
 * where memory is unsure. A line is: name | attributes | content.
 *
 * Attributes: `name:type`, with `!` where it must be there. Types: id (an NCName), ids (several), text, bool, int, float,
 * uri, or the words that are allowed, parted by `/`. A leading version (`2.2`) says from which on.
 * Content: names with ?, * or + as in schemas, in order; `(a b)+` and `(a,b)*` for a run and a choice; `#` where text may
 * stand too; `%name` for a group.
 */
import type { QtiVersion } from '../../formats/qti/names'

/** Attributes that every element of a body may have. */
const common = 'id:id class:text xml:lang:text label:text'

/** Names of groups, by version where they differ. */
export const groups = (version: QtiVersion): Record<string, string> => {
  const films = version === '2.1' ? '' : ',audio,video'
  const inline =
    'a,br,code,em,img,span,strong,sub,sup,b,i,object,math,printedVariable,feedbackInline,abbr,cite,dfn,kbd,q,samp,small,var' +
    films
  const asked = 'textEntryInteraction,inlineChoiceInteraction'
  const blocks = 'p,pre,blockquote,ul,ol,dl,h1,h2,h3,h4,h5,h6,hr,table,div,address,rubricBlock,feedbackBlock'
  const asking =
    'choiceInteraction,orderInteraction,matchInteraction,extendedTextInteraction,uploadInteraction,hotspotInteraction,selectPointInteraction,associateInteraction,hottextInteraction,gapMatchInteraction,sliderInteraction'
  return {
    static: inline,
    inline: `${inline},${asked}`,
    block: `${blocks},${asking},math${films}`,
    still: `${blocks.replace('rubricBlock,', '')},${inline}`,
    flow: `${blocks},${inline},${asked},${asking}`,
    value:
      'variable,baseValue,correct,mapResponse,mapResponsePoint,sum,product,subtract,divide,power,integerModulus,roundTo,random,randomInteger,multiple,ordered,and,or,not,isNull,match,member,contains,substring,equal,equalRounded,inside,patternMatch,stringMatch,gte,gt,lte,lt,containerSize,testVariables,max,min,null,round,truncate,integerDivide,index',
  }
}

/** Elements of QTI itself: those that 3.0 spells with `qti-`. */
export const ownElements = `
assessmentItem | identifier:id! title:text! label:text xml:lang:text adaptive:bool! timeDependent:bool! toolName:text toolVersion:text | responseDeclaration* outcomeDeclaration* templateDeclaration* templateProcessing? assessmentStimulusRef* stylesheet* itemBody? responseProcessing? modalFeedback*
assessmentStimulusRef | identifier:id! href:uri! title:text |
assessmentStimulus | identifier:id! title:text! label:text xml:lang:text toolName:text toolVersion:text | stylesheet* stimulusBody
stimulusBody | ${common} | (%block)*
responseDeclaration | identifier:id! cardinality:single/multiple/ordered/record! baseType:identifier/boolean/integer/float/string/point/pair/directedPair/duration/file/uri | correctResponse? mapping? areaMapping?
outcomeDeclaration | identifier:id! cardinality:single/multiple/ordered/record! baseType:identifier/boolean/integer/float/string/point/pair/directedPair/duration/file/uri view:text interpretation:text longInterpretation:uri normalMaximum:float normalMinimum:float masteryValue:float externalScored:human/externalMachine | defaultValue?
templateDeclaration | identifier:id! cardinality:single/multiple/ordered! baseType:identifier/boolean/integer/float/string/point/pair/directedPair/duration/file/uri paramVariable:bool mathVariable:bool | defaultValue?
correctResponse | interpretation:text | value+
defaultValue | interpretation:text | value+
value | fieldIdentifier:id baseType:text | #
mapping | lowerBound:float upperBound:float defaultValue:float! | mapEntry+
mapEntry | mapKey:text! mappedValue:float! caseSensitive:bool |
areaMapping | lowerBound:float upperBound:float defaultValue:float! | areaMapEntry+
areaMapEntry | shape:circle/rect/ellipse/poly/default! coords:coords! mappedValue:float! |
templateProcessing | | (setTemplateValue,setCorrectResponse,setDefaultValue,templateCondition,templateConstraint,exitTemplate)+
setTemplateValue | identifier:id! | (%value)
setCorrectResponse | identifier:id! | (%value)
templateConstraint | | (%value)
itemBody | ${common} | (%block)*
responseProcessing | template:uri templateLocation:uri | (responseCondition,setOutcomeValue,lookupOutcomeValue,exitResponse)*
responseCondition | | responseIf responseElseIf* responseElse?
responseIf | | (%value) (responseCondition,setOutcomeValue)*
responseElseIf | | (%value) (responseCondition,setOutcomeValue)*
responseElse | | (responseCondition,setOutcomeValue)*
setOutcomeValue | identifier:id! | (%value)
modalFeedback | outcomeIdentifier:id! showHide:show/hide! identifier:id! title:text | %fed
contentBody | ${common} | # (%flow)*
feedbackInline | outcomeIdentifier:id! showHide:show/hide! identifier:id! ${common} | # (%inline)*
rubricBlock | view:views! use:text ${common} | %ruled
prompt | ${common} | # (%static)*
choiceInteraction | responseIdentifier:id! shuffle:bool! maxChoices:int! minChoices:int orientation:horizontal/vertical ${common} | prompt? simpleChoice+
simpleChoice | identifier:id! fixed:bool templateIdentifier:id showHide:show/hide ${common} | # (%still)*
orderInteraction | responseIdentifier:id! shuffle:bool! minChoices:int maxChoices:int orientation:horizontal/vertical ${common} | prompt? simpleChoice+
matchInteraction | responseIdentifier:id! shuffle:bool! maxAssociations:int! minAssociations:int ${common} | prompt? simpleMatchSet simpleMatchSet
simpleMatchSet | id:id | simpleAssociableChoice*
simpleAssociableChoice | identifier:id! fixed:bool templateIdentifier:id showHide:show/hide matchMax:int! matchMin:int matchGroup:ids ${common} | # (%still)*
textEntryInteraction | responseIdentifier:id! base:int stringIdentifier:id expectedLength:int patternMask:text placeholderText:text ${common} |
inlineChoiceInteraction | responseIdentifier:id! shuffle:bool! required:bool minChoices:int ${common} | inlineChoice+
inlineChoice | identifier:id! fixed:bool templateIdentifier:id showHide:show/hide ${common} | # %offered
extendedTextInteraction | responseIdentifier:id! base:int stringIdentifier:id expectedLength:int patternMask:text placeholderText:text maxStrings:int minStrings:int expectedLines:int format:plain/preFormatted/xhtml ${common} | prompt?
uploadInteraction | responseIdentifier:id! type:text ${common} | prompt?
hotspotInteraction | responseIdentifier:id! maxChoices:int! minChoices:int ${common} | prompt? object hotspotChoice+
hotspotChoice | identifier:id! fixed:bool templateIdentifier:id showHide:show/hide shape:circle/rect/ellipse/poly/default! coords:coords! hotspotLabel:label ${common} |
selectPointInteraction | responseIdentifier:id! maxChoices:int! minChoices:int ${common} | prompt? object
printedVariable | identifier:id! format:text powerForm:bool base:text index:text delimiter:text field:id mappingIndicator:text ${common} |
variable | identifier:id! weightIdentifier:id |
baseValue | baseType:identifier/boolean/integer/float/string/point/pair/directedPair/duration/file/uri! | #
correct | identifier:id! |
mapResponse | identifier:id! |
mapResponsePoint | identifier:id! |
sum | | (%value)+
product | | (%value)+
max | | (%value)+
min | | (%value)+
multiple | | (%value)*
ordered | | (%value)*
and | | (%value)+
or | | (%value)+
subtract | | (%value) (%value)
divide | | (%value) (%value)
power | | (%value) (%value)
integerModulus | | (%value) (%value)
integerDivide | | (%value) (%value)
random | | (%value)
round | | (%value)
truncate | | (%value)
roundTo | roundingMode:significantFigures/decimalPlaces! figures:figures! | (%value)
randomInteger | min:number! max:number! step:number |
not | | (%value)
isNull | | (%value)
containerSize | | (%value)
match | | (%value) (%value)
member | | (%value) (%value)
contains | | (%value) (%value)
gte | | (%value) (%value)
gt | | (%value) (%value)
lte | | (%value) (%value)
lt | | (%value) (%value)
equal | toleranceMode:exact/absolute/relative! tolerance:tolerances includeLowerBound:bool includeUpperBound:bool | (%value) (%value)
equalRounded | roundingMode:significantFigures/decimalPlaces! figures:figures! | (%value) (%value)
inside | shape:circle/rect/ellipse/poly/default! coords:coords! | (%value)
patternMatch | pattern:text! | (%value)
stringMatch | caseSensitive:bool! substring:bool | (%value) (%value)
substring | caseSensitive:bool! | (%value) (%value)
testVariables | sectionIdentifier:id variableIdentifier:id! weightIdentifier:id baseType:text includeCategory:ids excludeCategory:ids |
assessmentTest | identifier:id! title:text! toolName:text toolVersion:text | outcomeDeclaration* timeLimits? stylesheet* testPart+ outcomeProcessing? testFeedback*
testPart | identifier:id! navigationMode:linear/nonlinear! submissionMode:individual/simultaneous! | preCondition* branchRule* itemSessionControl? timeLimits? (assessmentSection,assessmentSectionRef)+ testFeedback*
assessmentSection | identifier:id! required:bool fixed:bool title:text! visible:bool! keepTogether:bool | preCondition* branchRule* itemSessionControl? timeLimits? selection? ordering? rubricBlock* (assessmentItemRef,assessmentSection,assessmentSectionRef)*
selection | select:int! withReplacement:bool |
ordering | shuffle:bool |
timeLimits | minTime:float maxTime:float allowLateSubmission:bool |
itemSessionControl | maxAttempts:int showFeedback:bool allowReview:bool showSolution:bool allowComment:bool allowSkipping:bool validateResponses:bool |
assessmentItemRef | identifier:id! required:bool fixed:bool href:uri! category:ids | preCondition* branchRule* itemSessionControl? timeLimits? variableMapping* weight* templateDefault*
weight | identifier:id! value:float! |
outcomeProcessing | | (setOutcomeValue,outcomeCondition,lookupOutcomeValue,exitTest)*
`

/** What differs between the versions in the models above. */
export const perVersion = (version: QtiVersion): Record<string, string> =>
  version === '3.0'
    ? { fed: 'contentBody', ruled: 'contentBody', offered: '(%static)*' }
    : { fed: '# (%flow)*', ruled: '(%block)*', offered: '(printedVariable,math)*' }

/** Elements of XHTML, whose names no version changes. */
export const textElements = (version: QtiVersion) => `
p | ${common} | # (%inline)*
pre | ${common} | # (a,br,code,em,span,strong,b,i,math,textEntryInteraction,inlineChoiceInteraction)*
blockquote | cite:uri ${common} | (%block)*
ul | ${common} | li*
ol | ${common} | li*
li | ${common} | # (%flow)*
h3 | ${common} | # (%inline)*
h4 | ${common} | # (%inline)*
hr | ${common} |
br | ${common} |
div | ${common} | # (%flow)*
table | summary:text ${common} | caption? (col,colgroup)* thead? tfoot? tbody+
colgroup | span:int ${common} | col*
col | span:int ${common} |
thead | ${common} | tr+
tbody | ${common} | tr+
tr | ${common} | (th,td)+
th | headers:ids scope:row/col/rowgroup/colgroup abbr:text axis:text rowspan:int colspan:int ${common} | # (%flow)*
td | headers:ids scope:row/col/rowgroup/colgroup abbr:text axis:text rowspan:int colspan:int ${common} | # (%flow)*
a | href:uri! type:text ${common} | # (%inline)*
${['strong', 'em', 'sub', 'sup', 'code', 'span', 'b', 'i'].map((name) => `${name} | ${common} | # (%inline)*`).join('\n')}
img | src:uri! alt:text! longdesc:uri width:size height:size ${common} |
object | data:uri! type:text! width:size height:size ${common} | # (%flow)*
${
  version === '2.1'
    ? ''
    : ['audio', 'video']
        .map(
          (name) =>
            `${name} | src:uri controls:controls autoplay:text loop:text muted:text preload:text ${name === 'video' ? 'poster:uri width:int height:int' : ''} aria-label:text ${common} | source* track*`,
        )
        .join('\n')
}
`
