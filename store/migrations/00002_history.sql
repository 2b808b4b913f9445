-- +goose Up
CREATE TABLE history (
    id           bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT history_pkey PRIMARY KEY,
    at           timestamptz NOT NULL DEFAULT now(),
    account_id   bigint      CONSTRAINT history_account_fkey REFERENCES account (id),
    deed         text        NOT NULL,
    subject_kind text        NOT NULL,
    subject_id   bigint      NOT NULL,
    machine_id   bigint,
    before       jsonb,
    after        jsonb
);
CREATE INDEX history_subject_idx ON history (subject_kind, subject_id, id);
CREATE INDEX history_machine_idx ON history (machine_id, id) WHERE machine_id IS NOT NULL;

-- +goose StatementBegin
CREATE FUNCTION history_is_append_only() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION 'history is never changed' USING ERRCODE = 'restrict_violation';
END
$$;
-- +goose StatementEnd
CREATE TRIGGER history_append_only BEFORE UPDATE OR DELETE ON history
    FOR EACH ROW EXECUTE FUNCTION history_is_append_only();

-- +goose Down
DROP TABLE history;
DROP FUNCTION history_is_append_only();
