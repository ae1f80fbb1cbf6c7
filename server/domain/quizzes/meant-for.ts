/** Quizzes that are for a student, by class, group or name: a statement's part with three times their id. */
export const meantFor = `SELECT c.quiz_id FROM enrolment e JOIN quiz_class c ON c.class_id = e.class_id WHERE e.person_id = ?
  UNION SELECT g.quiz_id FROM class_group_member m JOIN quiz_group g ON g.group_id = m.group_id WHERE m.person_id = ?
  UNION SELECT quiz_id FROM quiz_student WHERE person_id = ?`
