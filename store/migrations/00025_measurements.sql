-- +goose Up
CREATE TABLE measurement (
    id            bigint           GENERATED ALWAYS AS IDENTITY CONSTRAINT measurement_pkey PRIMARY KEY,
    machine_id    bigint           NOT NULL CONSTRAINT measurement_machine_fkey REFERENCES machine (id),
    assembly_id   bigint           CONSTRAINT measurement_assembly_fkey REFERENCES assembly (id),
    point         text             NOT NULL,
    quantity      text             NOT NULL,
    readings      jsonb            NOT NULL DEFAULT '[]', -- in the unit of the quantity, in the order they were taken
    opening       double precision,                       -- of a part that must slide or plug: what it goes into
    expected      jsonb,
    instrument    text             NOT NULL DEFAULT '',
    measured_on   date             NOT NULL,
    finding_id    bigint           CONSTRAINT measurement_finding_fkey REFERENCES finding (id),
    attachment_id bigint           CONSTRAINT measurement_attachment_fkey REFERENCES attachment (id), -- a waveform
    note          text             NOT NULL DEFAULT '',
    trouble       text             NOT NULL DEFAULT '',   -- why the meter stopped; empty when it did not
    struck        boolean          NOT NULL DEFAULT false,
    version       integer          NOT NULL DEFAULT 1,
    account_id    bigint           CONSTRAINT measurement_account_fkey REFERENCES account (id),
    at            timestamptz      NOT NULL DEFAULT now()
);
CREATE INDEX measurement_machine_idx ON measurement (machine_id, measured_on DESC, id DESC) WHERE NOT struck;

-- Trimmers and geometry controls: what each does, and where it stood before and after every turn.
CREATE TABLE adjuster (
    id         bigint  GENERATED ALWAYS AS IDENTITY CONSTRAINT adjuster_pkey PRIMARY KEY,
    machine_id bigint  NOT NULL CONSTRAINT adjuster_machine_fkey REFERENCES machine (id),
    body       jsonb   NOT NULL,
    version    integer NOT NULL DEFAULT 1
);
CREATE INDEX adjuster_machine_idx ON adjuster (machine_id, id);

-- +goose Down
DROP TABLE adjuster;
DROP TABLE measurement;
