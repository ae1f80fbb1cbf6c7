// Rules are facts of the International Regulations for Preventing Collisions at Sea, 1972; first-aid and safety facts are common practice. The federation is invented.

/** The questions of an invented federation, in Thistle's plain text; parted by lines of dashes. */
export const federation = `# Rules of the road

A vessel under sail and one driven by her engine meet in open water. Who keeps out of the way, as a rule?

- [ ] The vessel under sail
- [x] The vessel driven by her engine
- [ ] Whoever is to port
- [ ] The smaller one

---

Which vessels keep a look-out by sight and hearing?

- [x] Every vessel, at all times
- [ ] Vessels over 12 m
- [ ] Vessels at night and in fog
- [ ] Vessels in narrow channels

---

In a narrow channel, which side does a vessel keep to?

= starboard | the starboard side | right

---

What does a vessel show at anchor by day?

- [x] One ball forward
- [ ] Two balls in a line
- [ ] A cone, point down
  > That is shown by a vessel under sail and engine.
- [ ] A cylinder

---

How many seconds long is a short blast, about?

= 1 ± 0.5 s

---

Put the vessels in order, from the one that all others keep out of the way of to the one that keeps out of the way of all.

1. Not under command
2. Engaged in fishing
3. Under sail
4. Power-driven

---

What goes with what, seen by day?

| | |
|---|---|
| Two balls in a line | Not under command |
| Ball, diamond, ball | Restricted in her ability to manoeuvre |
| A cylinder | Constrained by her draught |
| Two cones, points together | Engaged in fishing |

---

Which lights does a sailing vessel under way of 15 m have to show?

- [x] Sidelights
- [x] A sternlight
- [ ] A masthead light
- [ ] A towing light

---

# Safety

What is said first on the radio when life is in danger?

= mayday

---

Which channel of the VHF band is for distress and calling by voice?

= 16

---

Which of these burn on as long as they get air, heat and fuel?

- [x] A fire of wood
- [x] A fire of petrol
- [ ] A short circuit that has been switched off

---

Gas has leaked below. What comes first?

- [x] Turn the gas off at the bottle and air the boat
- [ ] Start the blower
  > A spark may light it.
- [ ] Light the stove to burn it off
- [ ] Start the engine

---

A person has been in cold water for half an hour and shivers hard. What helps?

- [x] Dry clothes and shelter
- [x] Warm, sweet drinks when awake
- [ ] Alcohol
- [ ] Rubbing the limbs hard

---

How often is a lifejacket that inflates by itself to be looked over by whoever wears it?

- [x] Each time before it is worn
- [ ] Every three years
- [ ] Only after it has gone off

---

# Buoyage

In region A, coming in from sea, on which side of you do you leave a red can?

= port | the port side | left

---

What colour is the light of a special mark?

= yellow

---

How many flashes in a group does the light of an east cardinal mark show?

= 2

---

A mark has two black balls, one above the other. What is it?

- [x] An isolated danger mark
- [ ] A safe water mark
- [ ] A south cardinal mark
- [ ] A wreck mark

---

What do you find on the north side of a north cardinal mark?

- [x] The best water
- [ ] The danger
- [ ] A channel for large vessels

---

Which of these may a safe water mark show?

- [x] A white light, isophase
- [x] A white light that occults
- [ ] A red light
- [ ] Quick flashes without a break
`

/** Corrected questions by their place, counted from 1: published once a fault in them has been reported. */
export const federationCorrections: Record<number, string> = {
  17: `# Buoyage

How many flashes in a group does the light of an east cardinal mark show?

= 3
`,
}
