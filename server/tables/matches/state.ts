/** What a row comes to, as SQL: what was settled goes before what was found. */
export const STATE = "CASE settled WHEN 'taken' THEN 'settled' WHEN 'none' THEN 'none' ELSE outcome END";
