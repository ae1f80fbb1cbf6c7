-- Kind and difficulty together have an entry of their own, which a search can begin with; scripts/prepare.ts enters it for what is there.

ALTER TABLE question_word COMMENT = 'words and other entries that questions are found by';
