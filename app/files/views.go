package files

import (
	"time"

	storefiles "frugalheron/store/files"
)

// AnnotatedPicture is a picture with numbers on it.
type AnnotatedPicture struct {
	AttachmentID int64  `json:"attachmentId"`
	AssemblyID   int64  `json:"assemblyId"`
	Assembly     string `json:"assembly" says:"text"`
	Caption      string `json:"caption" says:"text"`
	Callouts     int    `json:"callouts"`
}

func annotatedPictureOf(r storefiles.AnnotatedPicture) AnnotatedPicture { return AnnotatedPicture(r) }

// Blob is what was uploaded; its bytes lie in the blob store under their SHA-256.
type Blob struct {
	SHA256    string `json:"sha256"`
	Bytes     int64  `json:"bytes"`
	MediaType string `json:"mediaType"`
	Width     int    `json:"width" doc:"In pixels, upright; 0 for a document"`
	Height    int    `json:"height"`
}

// AttachmentInput is what people write about a picture or a document.
type AttachmentInput struct {
	Caption     string `json:"caption" says:"text" maxLength:"1000" required:"false"`
	View        string `json:"view" says:"text" maxLength:"60" required:"false" doc:"What it shows: front, rear, board top, label ..."`
	Taken       string `json:"taken" maxLength:"40" required:"false" doc:"When it was taken or written, EDTF"`
	Language    string `json:"language" maxLength:"35" required:"false" doc:"Of a document, BCP 47, as en or de-CH"`
	Translation string `json:"translation" says:"text" maxLength:"20000" required:"false"`
	Address     string `json:"address" says:"text" maxLength:"2000" required:"false" doc:"Of a web page, kept as text"`
	Captured    string `json:"captured" maxLength:"10" required:"false" doc:"Day on which the page was captured, YYYY-MM-DD"`
	Numbers     string `json:"numbers" maxLength:"4000" required:"false" doc:"Serials and other identifiers that stand in it, one a line"`
	StaffOnly   bool   `json:"staffOnly" required:"false" doc:"Not shown to viewers"`
	Portrait    bool   `json:"portrait" required:"false" doc:"A picture by which the machine is known; of several, the one chosen last"`
}

// Attachment is a picture or document of a machine, a lot, a drawer of the stores or an offer.
type Attachment struct {
	ID            int64  `json:"id"`
	Kind          string `json:"kind" enum:"picture,document,recording"`
	MachineID     *int64 `json:"machineId"`
	AcquisitionID *int64 `json:"acquisitionId"`
	StockID       *int64 `json:"stockId"`
	OfferID       *int64 `json:"offerId"`
	FileName      string `json:"fileName" says:"text"`
	AttachmentInput
	Blob
	By      string    `json:"by"`
	At      time.Time `json:"at"`
	Cited   int       `json:"cited" doc:"Statements that cite it"`
	Voided  bool      `json:"voided"`
	Version int       `json:"version"`
}

func attachmentOf(r storefiles.Attachment) Attachment {
	return Attachment{ID: r.ID, Kind: r.Kind, MachineID: r.MachineID, AcquisitionID: r.AcquisitionID,
		StockID: r.StockID, OfferID: r.OfferID,
		FileName: r.FileName, AttachmentInput: AttachmentInput(r.AttachmentFields), Blob: Blob(r.Blob), By: r.By,
		At: r.At, Cited: r.Cited, Voided: r.Voided, Version: r.Version}
}
