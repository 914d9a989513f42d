-- From here on there may be records of kinds that a program before does not know, and it refuses
-- the file in a sentence.
SELECT 1;
