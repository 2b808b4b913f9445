package blobs_test

import (
	"bufio"
	"encoding/xml"
	"fmt"
	"io"
	"maps"
	"net/http"
	"net/http/httptest"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
)

// s3 is a stand-in that speaks as much of S3 as a store of blobs asks for: one bucket, whole objects.
type s3 struct {
	bucket  string
	mu      sync.Mutex
	objects map[string][]byte
}

// startS3 serves an empty bucket and returns its address.
func startS3(t *testing.T, bucket string) string {
	t.Setenv("AWS_ACCESS_KEY_ID", "key")
	t.Setenv("AWS_SECRET_ACCESS_KEY", "secret")
	served := httptest.NewServer(&s3{bucket: bucket, objects: map[string][]byte{}})
	t.Cleanup(served.Close)
	return "s3://" + bucket + "?region=here&endpoint=" + served.URL
}

func (s *s3) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	s.mu.Lock()
	defer s.mu.Unlock()
	bucket, key, _ := strings.Cut(strings.TrimPrefix(r.URL.Path, "/"), "/")
	object, there := s.objects[key]
	switch {
	case !strings.HasPrefix(r.Header.Get("Authorization"), "AWS4-HMAC-SHA256 Credential=key/"):
		refuse(w, http.StatusForbidden, "AccessDenied")
	case bucket != s.bucket:
		refuse(w, http.StatusNotFound, "NoSuchBucket")
	case key == "" && r.Method == http.MethodGet:
		s.list(w, r.URL.Query().Get("prefix"))
	case key == "":
	case r.Method == http.MethodPut:
		data, err := payload(r)
		if err != nil {
			refuse(w, http.StatusBadRequest, "IncompleteBody")
			return
		}
		s.objects[key] = data
		w.Header().Set("ETag", `"kept"`)
	case !there:
		refuse(w, http.StatusNotFound, "NoSuchKey")
	default:
		w.Header().Set("ETag", `"kept"`)
		w.Header().Set("Last-Modified", "Mon, 02 Jan 2006 15:04:05 GMT")
		w.Header().Set("Content-Length", strconv.Itoa(len(object)))
		if r.Method == http.MethodGet {
			w.Write(object) //nolint:errcheck // the client finds out
		}
	}
}

func refuse(w http.ResponseWriter, status int, code string) {
	w.WriteHeader(status)
	fmt.Fprintf(w, "<Error><Code>%s</Code></Error>", code)
}

func (s *s3) list(w io.Writer, prefix string) {
	type content struct {
		Key  string
		Size int
	}
	var result struct {
		XMLName  xml.Name `xml:"ListBucketResult"`
		Contents []content
	}
	for _, key := range slices.Sorted(maps.Keys(s.objects)) {
		if strings.HasPrefix(key, prefix) {
			result.Contents = append(result.Contents, content{key, len(s.objects[key])})
		}
	}
	xml.NewEncoder(w).Encode(result) //nolint:errcheck // the client finds out
}

// payload reads what is put: in signed chunks where the connection is not encrypted.
func payload(r *http.Request) ([]byte, error) {
	if !strings.HasPrefix(r.Header.Get("X-Amz-Content-Sha256"), "STREAMING") {
		return io.ReadAll(r.Body)
	}
	in, data := bufio.NewReader(r.Body), []byte{}
	for {
		line, err := in.ReadString('\n')
		if err != nil {
			return nil, err
		}
		size, _, _ := strings.Cut(strings.TrimSpace(line), ";")
		n, err := strconv.ParseInt(size, 16, 32)
		if err != nil || n == 0 {
			return data, err
		}
		chunk := make([]byte, n+2)
		if _, err := io.ReadFull(in, chunk); err != nil {
			return nil, err
		}
		data = append(data, chunk[:n]...)
	}
}
