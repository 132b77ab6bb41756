-- A report of a deletion counts what was said by where it was said; until now there was the chat alone.
UPDATE deletions SET report = json_set(json_remove(report, '$.messages'), '$.said',
  json_object('chat', json_extract(report, '$.messages')))
WHERE json_extract(report, '$.messages') IS NOT NULL;
