-- +goose Up
CREATE TABLE statement (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT statement_pkey PRIMARY KEY,
    machine_id bigint      NOT NULL CONSTRAINT statement_machine_fkey REFERENCES machine (id),
    attribute  text        NOT NULL,
    value      text        NOT NULL,
    kind       text        NOT NULL,
    cited      text        NOT NULL DEFAULT '',
    page       text        NOT NULL DEFAULT '',
    link       text        NOT NULL DEFAULT '',
    picture_id bigint      CONSTRAINT statement_picture_fkey REFERENCES attachment (id),
    region     jsonb,
    party_id   bigint      CONSTRAINT statement_party_fkey REFERENCES party (id),
    said_on    text        NOT NULL DEFAULT '', -- EDTF
    withdrawn  text        NOT NULL DEFAULT '', -- why it does not count any more
    account_id bigint      CONSTRAINT statement_account_fkey REFERENCES account (id),
    at         timestamptz NOT NULL DEFAULT now(),
    version    integer     NOT NULL DEFAULT 1
);
CREATE INDEX statement_machine_idx ON statement (machine_id, id);
CREATE INDEX statement_picture_idx ON statement (picture_id);

CREATE TABLE custody (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT custody_pkey PRIMARY KEY,
    machine_id bigint      NOT NULL CONSTRAINT custody_machine_fkey REFERENCES machine (id),
    role       text        NOT NULL,
    who        text        NOT NULL DEFAULT '', -- where no party is named
    place      text        NOT NULL DEFAULT '',
    dates      text        NOT NULL DEFAULT '', -- EDTF
    used_for   text        NOT NULL DEFAULT '',
    kind       text        NOT NULL,
    cited      text        NOT NULL DEFAULT '',
    page       text        NOT NULL DEFAULT '',
    link       text        NOT NULL DEFAULT '',
    picture_id bigint      CONSTRAINT custody_picture_fkey REFERENCES attachment (id),
    region     jsonb,
    party_id   bigint      CONSTRAINT custody_party_fkey REFERENCES party (id),
    said_on    text        NOT NULL DEFAULT '',
    withdrawn  text        NOT NULL DEFAULT '',
    account_id bigint      CONSTRAINT custody_account_fkey REFERENCES account (id),
    at         timestamptz NOT NULL DEFAULT now(),
    version    integer     NOT NULL DEFAULT 1
);
CREATE INDEX custody_machine_idx ON custody (machine_id, id);
CREATE INDEX custody_party_idx ON custody (party_id);

-- Identifiers as they stand in records, on the outside, in statements and on boards, to find where the
-- same one is met twice. All of it follows from those and can be made anew at any time.
CREATE TABLE identifier (
    key        text   NOT NULL, -- letters and figures in upper case
    machine_id bigint NOT NULL,
    attribute  text   NOT NULL,
    value      text   NOT NULL,
    source     text   NOT NULL, -- in words
    CONSTRAINT identifier_pkey PRIMARY KEY (key, machine_id, attribute, source)
);
CREATE INDEX identifier_machine_idx ON identifier (machine_id);
INSERT INTO identifier (key, machine_id, attribute, value, source)
    SELECT upper(regexp_replace(serial, '[^0-9A-Za-z]', '', 'g')), id, 'serial', serial, 'the machine''s record'
    FROM machine WHERE length(regexp_replace(serial, '[^0-9A-Za-z]', '', 'g')) >= 4;
INSERT INTO identifier (key, machine_id, attribute, value, source)
    SELECT upper(regexp_replace(a.serial, '[^0-9A-Za-z]', '', 'g')), f.machine_id, 'serial', a.serial, a.title
    FROM assembly a JOIN fitting f ON f.assembly_id = a.id AND f.until IS NULL
    WHERE f.machine_id IS NOT NULL AND length(regexp_replace(a.serial, '[^0-9A-Za-z]', '', 'g')) >= 4
    ON CONFLICT DO NOTHING;

-- What was made of an identifier that two machines share.
CREATE TABLE identifier_meeting (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT identifier_meeting_pkey PRIMARY KEY,
    key        text        NOT NULL,
    lower_id   bigint      NOT NULL CONSTRAINT identifier_meeting_lower_fkey REFERENCES machine (id),
    higher_id  bigint      NOT NULL CONSTRAINT identifier_meeting_higher_fkey REFERENCES machine (id),
    decision   text        NOT NULL CONSTRAINT identifier_meeting_decision_known CHECK (decision IN ('linked', 'dismissed')),
    reason     text        NOT NULL,
    account_id bigint      CONSTRAINT identifier_meeting_account_fkey REFERENCES account (id),
    at         timestamptz NOT NULL DEFAULT now(),
    CONSTRAINT identifier_meeting_in_order CHECK (lower_id < higher_id),
    CONSTRAINT identifier_meeting_key UNIQUE (key, lower_id, higher_id)
);

-- Data of former owners on a machine's media: that it is there, never what it says.
CREATE TABLE personal_data (
    id         bigint  GENERATED ALWAYS AS IDENTITY CONSTRAINT personal_data_pkey PRIMARY KEY,
    machine_id bigint  NOT NULL CONSTRAINT personal_data_machine_fkey REFERENCES machine (id),
    medium     text    NOT NULL, -- where it was found
    sort       text    NOT NULL, -- what kind of data
    decision   text    NOT NULL DEFAULT 'open' CONSTRAINT personal_data_decision_known
        CHECK (decision IN ('open', 'keep sealed', 'return', 'wipe', 'archive')),
    reason     text    NOT NULL DEFAULT '',
    decided_by text    NOT NULL DEFAULT '',
    decided_on date,
    done_on    date,
    found_on   date    NOT NULL DEFAULT current_date,
    version    integer NOT NULL DEFAULT 1
);
CREATE INDEX personal_data_machine_idx ON personal_data (machine_id);
CREATE INDEX personal_data_open_idx ON personal_data (machine_id) WHERE decision = 'open' OR done_on IS NULL;

-- +goose Down
DROP TABLE personal_data;
DROP TABLE identifier_meeting;
DROP TABLE identifier;
DROP TABLE custody;
DROP TABLE statement;
