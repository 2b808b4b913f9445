package action

// Content is what is shown of a picture or document.
type Content struct {
	Data      []byte
	MediaType string
	FileName  string
}

// CsvOf is a table as a file.
func CsvOf(name, table string) Content {
	return Content{[]byte(table), "text/csv; charset=utf-8", name}
}
