package web

import (
	"mime"
	"strings"

	"frugalheron/app/action"
)

// file is an answer that holds a file.
type file struct {
	ContentType  string `header:"Content-Type"`
	CacheControl string `header:"Cache-Control"`
	Disposition  string `header:"Content-Disposition"`
	Body         []byte
}

// lasting is for what never changes under its address. Who may see it does, so the copy is the reader's own.
const lasting = "private, max-age=604800"

// shownFile answers with what was uploaded, to be shown in place.
func shownFile(c action.Content, err error) (*file, error) {
	return fileAnswer(c, err, "inline", lasting)
}

// keptFile answers with what was uploaded, to be saved.
func keptFile(c action.Content, err error) (*file, error) {
	return fileAnswer(c, err, "attachment", lasting)
}

// madeFile answers with a file that is made for the moment, to be saved.
func madeFile(c action.Content, err error) (*file, error) {
	return fileAnswer(c, err, "attachment", "no-store")
}

func fileAnswer(c action.Content, err error, disposition, cache string) (*file, error) {
	if err != nil {
		return nil, err
	}
	named := mime.FormatMediaType(disposition, map[string]string{"filename": plainName(c.FileName)})
	return &file{c.MediaType, cache, named, c.Data}, nil
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
