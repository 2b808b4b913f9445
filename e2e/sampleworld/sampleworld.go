// Package sampleworld starts a throwaway application with the sample collection, for pictures and measurements.
package sampleworld

import (
	"context"
	"net/http/httptest"
	"os"
	"path/filepath"

	"frugalheron/app"
	"frugalheron/demo"
	"frugalheron/store/blobs"
	"frugalheron/store/cluster"
	"frugalheron/store/pg"
	"frugalheron/web"
)

// Start serves the sample world on loopback from a folder of its own, until it is stopped.
func Start() (url string, stop func(), err error) {
	ctx := context.Background()
	folder, err := os.MkdirTemp("", "heron-sample-world-")
	if err != nil {
		return "", nil, err
	}
	server, err := cluster.Start(ctx, folder, cluster.Options{Throwaway: true})
	if err != nil {
		return "", nil, err
	}
	db, err := pg.Open(ctx, server.URL("postgres"))
	if err != nil {
		return "", nil, err
	}
	if err := pg.Migrate(ctx, db); err != nil {
		return "", nil, err
	}
	kept, err := blobs.Open(ctx, filepath.Join(folder, "files"))
	if err != nil {
		return "", nil, err
	}
	actions := app.New(db).WithBlobs(kept)
	if err := demo.Seed(ctx, actions, func(string) {}); err != nil {
		return "", nil, err
	}
	listener := httptest.NewServer(web.New(db, actions, web.Config{}))
	return listener.URL, func() {
		listener.Close()
		db.Close()
		server.Stop() //nolint:errcheck // the folder goes anyway
		os.RemoveAll(folder)
	}, nil
}
