-- +goose Up
CREATE TABLE survey (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT survey_pkey PRIMARY KEY,
    machine_id bigint      NOT NULL CONSTRAINT survey_machine_fkey REFERENCES machine (id),
    made_on    date        NOT NULL,
    made_by    text        NOT NULL DEFAULT '', -- who looked, where that is not the account
    looks      jsonb       NOT NULL DEFAULT '{}', -- by subsystem: inspected or absent, with a note
    cosmetic   text        NOT NULL DEFAULT '',
    note       text        NOT NULL DEFAULT '',
    finished   boolean     NOT NULL DEFAULT false,
    version    integer     NOT NULL DEFAULT 1,
    account_id bigint      CONSTRAINT survey_account_fkey REFERENCES account (id),
    at         timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX survey_running_key ON survey (machine_id) WHERE NOT finished;
CREATE INDEX survey_machine_idx ON survey (machine_id, made_on, id);

-- A finding lives from survey to survey; each time it was seen, or said to be gone, is a sighting.
CREATE TABLE finding (
    id            bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT finding_pkey PRIMARY KEY,
    machine_id    bigint      NOT NULL CONSTRAINT finding_machine_fkey REFERENCES machine (id),
    subsystem     text        NOT NULL,
    kind          text        NOT NULL,
    assembly_id   bigint      CONSTRAINT finding_assembly_fkey REFERENCES assembly (id),
    designator    text        NOT NULL DEFAULT '',
    place         text        NOT NULL DEFAULT '',
    attachment_id bigint      CONSTRAINT finding_attachment_fkey REFERENCES attachment (id),
    region        jsonb,
    struck        boolean     NOT NULL DEFAULT false,
    version       integer     NOT NULL DEFAULT 1,
    at            timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX finding_machine_idx ON finding (machine_id, id);

CREATE TABLE sighting (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT sighting_pkey PRIMARY KEY,
    finding_id bigint      NOT NULL CONSTRAINT sighting_finding_fkey REFERENCES finding (id),
    survey_id  bigint      CONSTRAINT sighting_survey_fkey REFERENCES survey (id),
    seen_on    date        NOT NULL,
    severity   text        NOT NULL CONSTRAINT sighting_severity_known CHECK (severity IN ('cosmetic', 'watch', 'repair', 'hazard')),
    trend      text        NOT NULL DEFAULT '' CONSTRAINT sighting_trend_known CHECK (trend IN ('', 'worse', 'same', 'better')),
    gone       boolean     NOT NULL DEFAULT false,
    note       text        NOT NULL DEFAULT '',
    account_id bigint      CONSTRAINT sighting_account_fkey REFERENCES account (id),
    at         timestamptz NOT NULL DEFAULT now()
);
CREATE UNIQUE INDEX sighting_survey_key ON sighting (finding_id, survey_id) WHERE survey_id IS NOT NULL;
CREATE INDEX sighting_finding_idx ON sighting (finding_id, seen_on, id);

-- +goose Down
DROP TABLE sighting;
DROP TABLE finding;
DROP TABLE survey;
