package app

// Content is what is shown of a picture or document.
type Content struct {
	Data      []byte
	MediaType string
	FileName  string
}

// csvOf is a table as a file.
func csvOf(name, table string) Content {
	return Content{[]byte(table), "text/csv; charset=utf-8", name}
}
