import { choice, choices, text, truth } from './write'

// Facts of the International Regulations for Preventing Collisions at Sea, 1972 (as amended); rule numbers with each.
export const rulesOfTheRoad = [
  choice(['q-head-on', '3.1', 1, 35], 'Two power-driven vessels meet head-on. What does each do?', 'Alters course to starboard', [['Alters course to port', 'Then they would pass starboard to starboard, and not know it of each other.'], 'Keeps course and speed', 'The faster one gives way'], { source: 'Rule 14' }),
  choice(['q-crossing', '3.1', 2, 40], 'Two power-driven vessels cross. Which one keeps out of the way?', 'The one that has the other on her own starboard side', ['The one that has the other on her own port side', 'The smaller one', 'The faster one'], { source: 'Rule 15' }),
  choice(['q-overtaking', '3.1', 2, 40], 'A sailing boat overtakes a motor boat. Who keeps clear?', 'The sailing boat', [['The motor boat', 'Any vessel overtaking any other keeps out of the way.'], 'Neither', 'Whichever is to windward'], { source: 'Rule 13' }),
  choice(['q-tacks', '3.1', 2, 40], 'Two sailing vessels have the wind on different sides. Which one keeps out of the way?', 'The one with the wind on her port side', ['The one with the wind on her starboard side', 'The one to windward', 'The one to leeward'], { source: 'Rule 12' }),
  choice(['q-windward', '3.1', 2, 40], 'Two sailing vessels have the wind on the same side. Which one keeps out of the way?', 'The one to windward', ['The one to leeward', 'The larger one', 'The one astern'], { source: 'Rule 12' }),
  truth(['q-channel', '3.1', 2, 30], 'A vessel of less than 20 metres shall not impede one that can safely navigate only within a narrow channel.', true, { source: 'Rule 9' }),
  choices(['q-risk', '3.1', 3, 60], 'What tells that risk of collision exists?', 'share', ['The compass bearing does not appreciably change', 'There is any doubt whether it exists'], ['The other vessel sounds one short blast', 'The other vessel is larger'], { source: 'Rule 7' }),
  choices(['q-hampered', '3.1', 3, 70], 'For which of these does a sailing vessel under way keep out of the way?', 'credits', ['A vessel not under command', 'A vessel engaged in fishing', 'A vessel restricted in her ability to manoeuvre'], ['A power-driven vessel she is meeting', 'A vessel that overtakes her'], { source: 'Rule 18' }),
  choice(['q-sidelight', '3.2', 1, 30], 'Which colour is the light on the port side?', 'Red', ['Green', 'White', 'Yellow'], { source: 'Rule 21' }),
  choice(['q-anchor-shape', '3.2', 1, 30], 'Which shape does a vessel at anchor show by day?', 'One ball', ['Two balls', 'A cone, point down', 'A cylinder'], { source: 'Rule 30' }),
  choice(['q-motor-sailing', '3.2', 2, 35], 'A boat under sail also uses her engine. Which shape does she show?', 'A cone, point down', [['A cone, point up', 'Look again at the point.'], 'A ball', 'A diamond'], { source: 'Rule 25' }),
  choice(['q-nuc', '3.2', 3, 40], 'Two red all-round lights in a vertical line show a vessel that is …', 'not under command', ['at anchor', 'trawling', 'constrained by her draught'], { source: 'Rule 27' }),
  truth(['q-sternlight', '3.2', 2, 30], 'The sternlight is white.', true, { source: 'Rule 21' }),
  choice(['q-one-blast', '3.3', 1, 30], 'In sight of one another, one short blast means …', 'I am altering my course to starboard', ['I am altering my course to port', 'I am operating astern propulsion', 'I doubt that you do enough'], { source: 'Rule 34' }),
  text(['q-three-blasts', '3.3', 2, 45], 'A power-driven vessel in sight gives three short blasts. Which propulsion is she operating?', [['contains', 'astern'], ['is', 'reverse'], ['begins', 'backward', 0.5]], { source: 'Rule 34', label: 'Propulsion' }),
  choice(['q-fog-sail', '3.3', 3, 45], 'What does a sailing vessel under way sound in fog at least every two minutes?', 'One prolonged and two short blasts', ['One prolonged blast', 'Two prolonged blasts', 'Five short blasts'], { source: 'Rule 35' }),
]
