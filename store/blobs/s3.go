package blobs

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/url"

	"github.com/minio/minio-go/v7"
	"github.com/minio/minio-go/v7/pkg/credentials"
)

// s3Store keeps each key as an object of a bucket in an S3-compatible store, which puts whole objects only.
type s3Store struct {
	client *minio.Client
	name   string
}

// openS3 opens s3://bucket?endpoint=https://host&region=name. Credentials come from where S3 clients look
// for them: AWS_ACCESS_KEY_ID and AWS_SECRET_ACCESS_KEY, the shared file, or the machine's own role.
func openS3(ctx context.Context, where string) (*s3Store, error) {
	asked, err := url.Parse(where)
	if err != nil {
		return nil, err
	}
	if asked.Host == "" {
		return nil, fmt.Errorf("%s names no bucket, as s3://bucket", where)
	}
	query := asked.Query()
	for name := range query {
		if name != "endpoint" && name != "region" {
			return nil, fmt.Errorf("%q is no setting of an S3 store; endpoint and region are", name)
		}
	}
	endpoint := &url.URL{Scheme: "https", Host: "s3.amazonaws.com"}
	if given := query.Get("endpoint"); given != "" {
		if endpoint, err = url.Parse(given); err != nil || endpoint.Host == "" ||
			endpoint.Scheme != "https" && endpoint.Scheme != "http" {
			return nil, fmt.Errorf("endpoint %q is no address as https://host", given)
		}
	}
	client, err := minio.New(endpoint.Host, &minio.Options{
		Creds: credentials.NewChainCredentials([]credentials.Provider{
			&credentials.EnvAWS{}, &credentials.FileAWSCredentials{}, &credentials.IAM{},
		}),
		Secure: endpoint.Scheme == "https", Region: query.Get("region"),
	})
	if err != nil {
		return nil, err
	}
	there, err := client.BucketExists(ctx, asked.Host)
	if err == nil && !there {
		err = fmt.Errorf("there is no bucket %s; make it first", asked.Host)
	}
	return &s3Store{client, asked.Host}, err
}

func (s *s3Store) put(ctx context.Context, key string, data []byte, mediaType string) error {
	_, err := s.client.PutObject(ctx, s.name, key, bytes.NewReader(data), int64(len(data)),
		minio.PutObjectOptions{ContentType: mediaType, DisableMultipart: true})
	if answered := minio.ToErrorResponse(err); answered.StatusCode == http.StatusInsufficientStorage {
		return fmt.Errorf("%w: %w", ErrFull, err)
	}
	return err
}

func (s *s3Store) get(ctx context.Context, key string) ([]byte, error) {
	object, err := s.client.GetObject(ctx, s.name, key, minio.GetObjectOptions{})
	if err != nil {
		return nil, absent(key, err)
	}
	defer object.Close()
	data, err := io.ReadAll(object)
	return data, absent(key, err)
}

func (s *s3Store) stat(ctx context.Context, key string) (Info, error) {
	info, err := s.client.StatObject(ctx, s.name, key, minio.StatObjectOptions{})
	return Info{key, info.Size}, absent(key, err)
}

// settle has nothing to do: an object is there for good once it is there.
func (s *s3Store) settle(string) error { return nil }

func (s *s3Store) list(ctx context.Context, prefix string, visit func(Info) error) error {
	ctx, stop := context.WithCancel(ctx)
	defer stop() // the listing ends with us
	for object := range s.client.ListObjects(ctx, s.name, minio.ListObjectsOptions{Prefix: prefix, Recursive: true}) {
		if object.Err != nil {
			return object.Err
		}
		if err := visit(Info{object.Key, object.Size}); err != nil {
			return err
		}
	}
	return ctx.Err()
}

// absent tells a key that nothing is under. A bucket that is gone is another matter.
func absent(key string, err error) error {
	if err == nil || errors.Is(err, io.EOF) {
		return err
	}
	answered := minio.ToErrorResponse(err)
	if answered.Code == minio.NoSuchKey || answered.Code == "" && answered.StatusCode == http.StatusNotFound {
		return fmt.Errorf("%s: %w", key, ErrNotFound)
	}
	return err
}
