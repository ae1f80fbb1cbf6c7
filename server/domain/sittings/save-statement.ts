/** What a save asks of its sitting and its answer: the same for all processes and nodes (architecture, Data). Its values in the order in which they are named; `now` twice. */
export const guard = ({ attempt = '?', student = '?', now = '?', lease = '?' } = {}) =>
  `a.id = ${attempt} AND a.student_id = ${student} AND a.state = 'open' AND a.hard_stop >= ${now} AND a.lease = ${lease} AND w.page >= a.page AND w.stops_at >= ${now}`

/** What a save writes: the row of the sitting too, so that saving and handing in never both win. */
export const keeps = ({ response = '?', flagged = '?', now = '?', seq = '?' } = {}) =>
  `w.response = ${response}, w.flagged = ${flagged}, w.kept_at = ${now}, w.seq = ${seq}, w.lease = a.lease, a.touched = a.touched + 1`

/** The save of one answer. */
export const saveStatement = `UPDATE attempt a JOIN answer w ON w.attempt_id = a.id
  SET ${keeps()} WHERE ${guard()} AND w.item = ? AND (w.lease < a.lease OR w.seq < ?)`
