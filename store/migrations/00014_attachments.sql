-- +goose Up
-- What was uploaded. The bytes lie in the blob store under the SHA-256 and never change.
CREATE TABLE blob (
    sha256     text        CONSTRAINT blob_pkey PRIMARY KEY CONSTRAINT blob_sha256_form CHECK (sha256 ~ '^[0-9a-f]{64}$'),
    bytes      bigint      NOT NULL,
    media_type text        NOT NULL,
    width      integer     NOT NULL DEFAULT 0, -- of a picture, upright
    height     integer     NOT NULL DEFAULT 0,
    at         timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE attachment (
    id             bigint      GENERATED ALWAYS AS IDENTITY CONSTRAINT attachment_pkey PRIMARY KEY,
    kind           text        NOT NULL CONSTRAINT attachment_kind_known CHECK (kind IN ('picture', 'document')),
    sha256         text        NOT NULL CONSTRAINT attachment_blob_fkey REFERENCES blob (sha256),
    machine_id     bigint      CONSTRAINT attachment_machine_fkey REFERENCES machine (id),
    acquisition_id bigint      CONSTRAINT attachment_acquisition_fkey REFERENCES acquisition (id),
    file_name      text        NOT NULL,
    caption        text        NOT NULL DEFAULT '',
    view           text        NOT NULL DEFAULT '',
    taken          text        NOT NULL DEFAULT '', -- EDTF
    language       text        NOT NULL DEFAULT '', -- BCP 47
    translation    text        NOT NULL DEFAULT '',
    address        text        NOT NULL DEFAULT '', -- of a web page
    captured       text        NOT NULL DEFAULT '', -- day on which the page was captured
    staff_only     boolean     NOT NULL DEFAULT false,
    struck         boolean     NOT NULL DEFAULT false,
    account_id     bigint      CONSTRAINT attachment_account_fkey REFERENCES account (id),
    at             timestamptz NOT NULL DEFAULT now(),
    version        integer     NOT NULL DEFAULT 1,
    CONSTRAINT attachment_of_one CHECK (num_nonnulls(machine_id, acquisition_id) = 1)
);
CREATE INDEX attachment_machine_idx ON attachment (machine_id, id) WHERE NOT struck;
CREATE INDEX attachment_acquisition_idx ON attachment (acquisition_id, id) WHERE NOT struck;
CREATE INDEX attachment_blob_idx ON attachment (sha256);

-- +goose Down
DROP TABLE attachment;
DROP TABLE blob;
