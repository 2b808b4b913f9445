-- +goose Up
-- What is to be done again and again, to machines, or to parts of a class; kept whole, with how often.
CREATE TABLE upkeep_rule (
    id       bigint  GENERATED ALWAYS AS IDENTITY CONSTRAINT upkeep_rule_pkey PRIMARY KEY,
    of_class text    NOT NULL, -- machine, or the key of an ageing class
    model_id bigint  CONSTRAINT upkeep_rule_model_fkey REFERENCES machine_model (id),
    body     jsonb   NOT NULL,
    voided   boolean NOT NULL DEFAULT false,
    version  integer NOT NULL DEFAULT 1
);
CREATE INDEX upkeep_rule_model_idx ON upkeep_rule (model_id);
-- Who writes the same again means the one that is there.
CREATE UNIQUE INDEX upkeep_rule_words_key ON upkeep_rule (of_class, COALESCE(model_id, 0), lower(body->>'task')) WHERE NOT voided;

-- One task done to many machines in one walk. The stops are kept whole as they were when it was begun.
CREATE TABLE upkeep_round (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT upkeep_round_pkey PRIMARY KEY,
    rule_id    bigint      NOT NULL CONSTRAINT upkeep_round_rule_fkey REFERENCES upkeep_rule (id),
    body       jsonb       NOT NULL,
    is_open    boolean     NOT NULL DEFAULT true,
    voided     boolean     NOT NULL DEFAULT false,
    version    integer     NOT NULL DEFAULT 1,
    account_id bigint      CONSTRAINT upkeep_round_account_fkey REFERENCES account (id),
    at         timestamptz NOT NULL DEFAULT now()
);
-- A task is walked once at a time.
CREATE UNIQUE INDEX upkeep_round_open_key ON upkeep_round (rule_id) WHERE is_open AND NOT voided;
CREATE INDEX upkeep_round_rule_idx ON upkeep_round (rule_id);

-- What was done of a rule to one machine, or to one board that is in none: in a round or by itself.
CREATE TABLE upkeep_deed (
    id          bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT upkeep_deed_pkey PRIMARY KEY,
    rule_id     bigint      NOT NULL CONSTRAINT upkeep_deed_rule_fkey REFERENCES upkeep_rule (id),
    round_id    bigint      CONSTRAINT upkeep_deed_round_fkey REFERENCES upkeep_round (id),
    stop        integer     NOT NULL DEFAULT 0,
    machine_id  bigint      CONSTRAINT upkeep_deed_machine_fkey REFERENCES machine (id),
    assembly_id bigint      CONSTRAINT upkeep_deed_assembly_fkey REFERENCES assembly (id),
    boards      bigint[]    NOT NULL, -- on which the parts sit that it was done to: it goes with them
    of_class    text        NOT NULL,
    done_on     date        NOT NULL,
    how         text        NOT NULL CONSTRAINT upkeep_deed_how CHECK (how IN ('did', 'seen', 'not')),
    body        jsonb       NOT NULL,
    voided      boolean     NOT NULL DEFAULT false,
    version     integer     NOT NULL DEFAULT 1,
    account_id  bigint      CONSTRAINT upkeep_deed_account_fkey REFERENCES account (id),
    at          timestamptz NOT NULL DEFAULT now(),
    CONSTRAINT upkeep_deed_of_one CHECK (num_nonnulls(machine_id, assembly_id) = 1)
);
CREATE UNIQUE INDEX upkeep_deed_stop_key ON upkeep_deed (round_id, stop) WHERE NOT voided;
CREATE INDEX upkeep_deed_rule_idx ON upkeep_deed (rule_id);
CREATE INDEX upkeep_deed_machine_idx ON upkeep_deed (machine_id);
CREATE INDEX upkeep_deed_boards_idx ON upkeep_deed USING gin (boards);
CREATE INDEX upkeep_deed_done_idx ON upkeep_deed (done_on);

-- To look at what ages is a look.
-- +goose StatementBegin
CREATE FUNCTION upkeep_deed_due() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    PERFORM note_due(NEW.machine_id, 'machine ageing');
    PERFORM note_due_of_assembly(board, 'machine ageing') FROM unnest(NEW.boards) AS board;
    RETURN NULL;
END
$$;
-- +goose StatementEnd
CREATE TRIGGER upkeep_deed_due AFTER INSERT OR UPDATE ON upkeep_deed FOR EACH ROW EXECUTE FUNCTION upkeep_deed_due();

-- What somebody means to do on a day.
CREATE TABLE plan (
    id         bigint  GENERATED ALWAYS AS IDENTITY CONSTRAINT plan_pkey PRIMARY KEY,
    planned_on date    NOT NULL,
    rule_id    bigint  CONSTRAINT plan_rule_fkey REFERENCES upkeep_rule (id),
    job_id     bigint  CONSTRAINT plan_job_fkey REFERENCES job (id),
    machine_id bigint  CONSTRAINT plan_machine_fkey REFERENCES machine (id),
    body       jsonb   NOT NULL,
    voided     boolean NOT NULL DEFAULT false,
    version    integer NOT NULL DEFAULT 1
);
CREATE INDEX plan_day_idx ON plan (planned_on) WHERE NOT voided;

-- The address at which an account's calendar is read. Only what the secret hashes to is kept.
CREATE TABLE calendar_feed (
    account_id bigint      CONSTRAINT calendar_feed_pkey PRIMARY KEY CONSTRAINT calendar_feed_account_fkey REFERENCES account (id),
    secret     bytea       NOT NULL CONSTRAINT calendar_feed_secret_key UNIQUE, -- SHA-256 of it
    made_at    timestamptz NOT NULL DEFAULT now()
);

-- +goose Down
DROP TABLE calendar_feed, plan, upkeep_deed, upkeep_round, upkeep_rule;
DROP FUNCTION upkeep_deed_due;
