-- +goose Up
-- A symptom with the trials that look for its cause, kept whole.
CREATE TABLE diagnosis (
    id         bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT diagnosis_pkey PRIMARY KEY,
    machine_id bigint      NOT NULL CONSTRAINT diagnosis_machine_fkey REFERENCES machine (id),
    body       jsonb       NOT NULL,
    is_open    boolean     NOT NULL,
    voided     boolean     NOT NULL DEFAULT false,
    version    integer     NOT NULL DEFAULT 1,
    at         timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX diagnosis_machine_idx ON diagnosis (machine_id, id) WHERE NOT voided;

-- Boards that were put in for a trial, to find where else one was tried.
CREATE TABLE diagnosis_board (
    diagnosis_id bigint NOT NULL CONSTRAINT diagnosis_board_diagnosis_fkey REFERENCES diagnosis (id),
    assembly_id  bigint NOT NULL CONSTRAINT diagnosis_board_assembly_fkey REFERENCES assembly (id),
    CONSTRAINT diagnosis_board_pkey PRIMARY KEY (diagnosis_id, assembly_id)
);
CREATE INDEX diagnosis_board_assembly_idx ON diagnosis_board (assembly_id);

-- +goose Down
DROP TABLE diagnosis_board, diagnosis;
