-- +goose Up
-- What nobody knows yet: a chip, a card, a connector. Those that stand on sheets are found there; a question
-- keeps what was thought and asked about them.
CREATE TABLE question (
    id          bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT question_pkey PRIMARY KEY,
    sort        text        NOT NULL CONSTRAINT question_sort_known CHECK (sort IN ('chip', 'reading', 'card', 'board', 'connector', 'switch', 'other')),
    subject     text        NOT NULL, -- number or marking of a chip; else what it is called
    machine_id  bigint      CONSTRAINT question_machine_fkey REFERENCES machine (id), -- null for what may be on several
    body        text        NOT NULL DEFAULT '', -- what is asked, what one sees
    asked       text        NOT NULL DEFAULT '', -- who was asked, and when
    answer      text        NOT NULL DEFAULT '',
    source      text        NOT NULL DEFAULT '',
    answered_on date,
    version     integer     NOT NULL DEFAULT 1,
    at          timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX question_subject_key ON question (sort, subject, COALESCE(machine_id, 0));

CREATE TABLE guess (
    id          bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT guess_pkey PRIMARY KEY,
    question_id bigint      NOT NULL CONSTRAINT guess_question_fkey REFERENCES question (id),
    body        text        NOT NULL,
    reason      text        NOT NULL,
    account_id  bigint      CONSTRAINT guess_account_fkey REFERENCES account (id),
    at          timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX guess_question_idx ON guess (question_id, id);
CREATE INDEX entry_unknown_idx ON entry (assembly_id, line) WHERE kind = 'chip' AND NOT empty AND (type_number = '' OR doubtful);

-- What an unknown board could be: explanations, evidence and their weights, weighed by the core.
CREATE TABLE mystery (
    assembly_id bigint      CONSTRAINT mystery_pkey PRIMARY KEY CONSTRAINT mystery_assembly_fkey REFERENCES assembly (id),
    body        jsonb       NOT NULL,
    version     integer     NOT NULL DEFAULT 1,
    updated_at  timestamptz NOT NULL DEFAULT now()
);

-- A picture of a board with numbers on it that stand for lines of its sheet, and outlines of what works together.
CREATE TABLE board_plan (
    attachment_id bigint      CONSTRAINT board_plan_pkey PRIMARY KEY CONSTRAINT board_plan_attachment_fkey REFERENCES attachment (id),
    assembly_id   bigint      NOT NULL CONSTRAINT board_plan_assembly_fkey REFERENCES assembly (id),
    body          jsonb       NOT NULL,
    version       integer     NOT NULL DEFAULT 1,
    updated_at    timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX board_plan_assembly_idx ON board_plan (assembly_id);

-- +goose Down
DROP TABLE board_plan;
DROP TABLE mystery;
DROP INDEX entry_unknown_idx;
DROP TABLE guess;
DROP TABLE question;
