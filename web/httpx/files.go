package httpx

import (
	"mime"
	"strings"

	"frugalheron/app/action"
)

// File is an answer that holds a file.
type File struct {
	ContentType  string `header:"Content-Type"`
	CacheControl string `header:"Cache-Control"`
	Disposition  string `header:"Content-Disposition"`
	Body         []byte
}

// lasting is for what never changes under its address. Who may see it does, so the copy is the reader's own.
const lasting = "private, max-age=604800"

// ShownFile answers with what was uploaded, to be shown in place.
func ShownFile(c action.Content, err error) (*File, error) {
	return fileAnswer(c, err, "inline", lasting)
}

// KeptFile answers with what was uploaded, to be saved.
func KeptFile(c action.Content, err error) (*File, error) {
	return fileAnswer(c, err, "attachment", lasting)
}

// MadeFile answers with a file that is made for the moment, to be saved.
func MadeFile(c action.Content, err error) (*File, error) {
	return fileAnswer(c, err, "attachment", "no-store")
}

func fileAnswer(c action.Content, err error, disposition, cache string) (*File, error) {
	if err != nil {
		return nil, err
	}
	named := mime.FormatMediaType(disposition, map[string]string{"filename": plainName(c.FileName)})
	return &File{c.MediaType, cache, named, c.Data}, nil
}

// plainName puts a line in place of what leads into another folder or cannot be shown.
func plainName(name string) string {
	return strings.Map(func(r rune) rune {
		if r < ' ' || r == 0x7f || r == '\ufffd' || strings.ContainsRune(`/\:*?"<>|`, r) {
			return '_'
		}
		return r
	}, name)
}
