// Weather facts are common practice; the Beaufort numbers are those of the World Meteorological Organization. The publisher is invented.

/** The questions of an invented publisher's book. */
export const weatherBook = `# Weather at sea

In which unit is the pressure of the air given on a weather chart?

= hPa | hectopascal | millibar | mb

---

Isobars lie close together. What does that tell?

- [x] Strong wind
- [ ] Fog
- [ ] Calm
- [ ] Rising pressure

---

Which way does the wind blow around a low in the northern hemisphere, near the surface?

- [x] Against the clock, and inwards
- [ ] With the clock, and inwards
- [ ] Against the clock, and outwards
- [ ] With the clock, and outwards

---

At which force of the Beaufort scale does a gale begin?

= 8

---

Warm, moist air moves over cold water. What forms?

= fog | sea fog | advection fog

---

By day the land grows warmer than the sea. From where does the breeze blow in the afternoon?

- [x] From the sea
- [ ] From the land
- [ ] Along the shore, always to the east

---

Put what comes with a warm front in order.

1. High cirrus
2. Cirrostratus, with a ring about the sun
3. Altostratus
4. Nimbostratus, and rain

---

A cold front has gone through. What is likely?

- [x] The wind has veered
- [x] It is colder
- [x] Visibility is good between showers
- [ ] The pressure falls on

---

How many knots is a wind of 10 m/s, to the nearest whole knot?

= 19 ± 0.5

---

What goes with what?

| | |
|---|---|
| Pressure falls fast | Strong wind is on its way |
| Pressure rises fast | Strong wind for a short while, then better |
| Pressure steady and high | Settled weather |
`
