-- +goose Up

-- Questions are told apart by their kind, and answers with them; an answer says
-- in which round of its poll it was given, and a poll in which it is.
-- +goose StatementBegin
CREATE FUNCTION pg_temp.asked(j jsonb) RETURNS jsonb LANGUAGE plpgsql AS $$
DECLARE
    o jsonb;
BEGIN
    IF jsonb_typeof(j) = 'array' THEN
        RETURN (SELECT coalesce(jsonb_agg(pg_temp.asked(e) ORDER BY n), '[]') FROM jsonb_array_elements(j) WITH ORDINALITY a(e, n));
    ELSIF jsonb_typeof(j) <> 'object' THEN
        RETURN j;
    END IF;
    o := (SELECT coalesce(jsonb_object_agg(k, pg_temp.asked(v)), '{}') FROM jsonb_each(j) a(k, v));
    IF jsonb_typeof(o->'choices') = 'array' THEN
        RETURN o - 'choices' || jsonb_build_object('kind', 'choice', 'choice', jsonb_build_object('options', o->'choices'));
    END IF;
    IF jsonb_typeof(o->'poll') = 'string' AND jsonb_typeof(o->'choice') = 'string' THEN
        RETURN o - 'choice' || '{"round": 1}' || CASE o->>'choice' WHEN '' THEN '{}' ELSE
            jsonb_build_object('value', jsonb_build_object('kind', 'choice', 'choice', jsonb_build_object('option', o->'choice'))) END;
    END IF;
    RETURN o;
END
$$;
-- +goose StatementEnd

UPDATE frames SET content = pg_temp.asked(content::jsonb)::json WHERE content::text LIKE '%"choices"%';
UPDATE edits SET change = pg_temp.asked(change::jsonb)::json, back = pg_temp.asked(back::jsonb)::json
WHERE change::text LIKE '%"choices"%' OR back::text LIKE '%"choices"%';
UPDATE templates SET frame = pg_temp.asked(frame::jsonb)::json WHERE frame::text LIKE '%"choices"%';
UPDATE sessions SET content = pg_temp.asked(content::jsonb)::json WHERE content::text LIKE '%"choices"%';
UPDATE sessions SET state = jsonb_set(state::jsonb, '{polls}', (
    SELECT jsonb_object_agg(k, jsonb_build_object('phase', v, 'round', 1)) FROM jsonb_each(state::jsonb->'polls') a(k, v)))::json
WHERE state::jsonb->'polls' <> '{}';
UPDATE marks SET mark = pg_temp.asked(mark::jsonb)::json WHERE mark::text ~ '"choices?"';
UPDATE log SET change = pg_temp.asked(change::jsonb)::json WHERE change::text ~ '"choices?"';

-- +goose Down

-- +goose StatementBegin
CREATE FUNCTION pg_temp.unasked(j jsonb) RETURNS jsonb LANGUAGE plpgsql AS $$
DECLARE
    o jsonb;
BEGIN
    IF jsonb_typeof(j) = 'array' THEN
        RETURN (SELECT coalesce(jsonb_agg(pg_temp.unasked(e) ORDER BY n), '[]') FROM jsonb_array_elements(j) WITH ORDINALITY a(e, n));
    ELSIF jsonb_typeof(j) <> 'object' THEN
        RETURN j;
    END IF;
    o := (SELECT coalesce(jsonb_object_agg(k, pg_temp.unasked(v)), '{}') FROM jsonb_each(j) a(k, v));
    IF jsonb_typeof(o->'choice'->'options') = 'array' THEN
        RETURN o - 'kind' - 'choice' || jsonb_build_object('choices', o->'choice'->'options');
    END IF;
    IF jsonb_typeof(o->'poll') = 'string' AND o ? 'round' THEN
        RETURN o - 'round' - 'value' || jsonb_build_object('choice', coalesce(o->'value'->'choice'->'option', '""'));
    END IF;
    RETURN o;
END
$$;
-- +goose StatementEnd

-- Later rounds have no place in what was before.
DELETE FROM marks WHERE id LIKE '%~%';
UPDATE frames SET content = pg_temp.unasked(content::jsonb)::json WHERE content::text LIKE '%"options"%';
UPDATE edits SET change = pg_temp.unasked(change::jsonb)::json, back = pg_temp.unasked(back::jsonb)::json
WHERE change::text LIKE '%"options"%' OR back::text LIKE '%"options"%';
UPDATE templates SET frame = pg_temp.unasked(frame::jsonb)::json WHERE frame::text LIKE '%"options"%';
UPDATE sessions SET content = pg_temp.unasked(content::jsonb)::json WHERE content::text LIKE '%"options"%';
UPDATE sessions SET state = jsonb_set(state::jsonb, '{polls}', (
    SELECT jsonb_object_agg(k, v->'phase') FROM jsonb_each(state::jsonb->'polls') a(k, v)))::json
WHERE state::jsonb->'polls' <> '{}';
UPDATE marks SET mark = pg_temp.unasked(mark::jsonb)::json WHERE mark::text ~ '"(options|round)"';
UPDATE log SET change = pg_temp.unasked(change::jsonb)::json WHERE change::text ~ '"(options|round)"';
