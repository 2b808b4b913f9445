package main

import (
	"context"
	"fmt"
	"net"
	"os"
	"path/filepath"
	"strings"
	"syscall"

	"github.com/jmoiron/sqlx"
	"github.com/spf13/cobra"

	"frugalheron/app"
	"frugalheron/demo"
	"frugalheron/store/cluster"
	"frugalheron/store/pg"
	"frugalheron/web"
)

// rootsFolder takes the demonstration's data where the server's own user cannot enter the
// project's folder.
const rootsFolder = "/var/lib/frugal-heron-demo"

func demoCommand() *cobra.Command {
	var host, port, folder string
	var reset bool
	cmd := &cobra.Command{
		Use:   "demo",
		Short: "Serve the sample world from a PostgreSQL of its own",
		Args:  cobra.NoArgs,
		RunE: run(func(cmd *cobra.Command, _ []string) error {
			if err := logTo(environment("HERON_LOG_LEVEL", "warn")); err != nil {
				return usageError{err}
			}
			ctx, stop := untilStopped(cmd.Context())
			defer stop()
			return runDemo(ctx, cmd, net.JoinHostPort(host, port), folder, reset)
		}),
	}
	cmd.Flags().StringVar(&host, "host", "127.0.0.1", "address to serve on")
	cmd.Flags().StringVar(&port, "port", "8080", "port to serve on")
	cmd.Flags().StringVar(&folder, "data", environment("HERON_DATA", "data"),
		"folder that keeps the demonstration's data (HERON_DATA)")
	cmd.Flags().BoolVar(&reset, "reset", false, "throw the data away first")
	cmd.AddCommand(generateCommand())
	return cmd
}

func runDemo(ctx context.Context, cmd *cobra.Command, address, folder string, reset bool) error {
	// The address first: if it is taken, nothing else should be started.
	listener, err := listenOn(address)
	if err != nil {
		return err
	}
	defer listener.Close()
	at := listener.Addr().(*net.TCPAddr)
	return withDemoDatabase(ctx, cmd, folder, reset, func(d demonstration) error {
		bench, err := startBench(benchPorts{})
		if err != nil {
			return err
		}
		defer bench.Close()
		d.actions.WithInstruments(bench.addresses())
		accounts, err := demoPasswords(ctx, d.actions, d.folder, at.IP.IsLoopback())
		if err != nil {
			return err
		}
		for i, reachable := range addresses(at) {
			before := "\nFrugal Heron with its sample world:  "
			if i > 0 {
				before = strings.Repeat(" ", len(before)-1)
			}
			d.say("%shttp://%s", before, reachable)
		}
		d.say("")
		for _, account := range accounts {
			d.say("  sign in as %-8s with password %-26s (%s)", account.Login, account.Password, account.Role)
		}
		if !at.IP.IsLoopback() {
			d.say("%s", openWarning)
		}
		d.say("\nCtrl-C stops it and keeps the data; make demo-reset starts over.")
		return serve(ctx, listener, d.db, d.actions, web.Config{})
	})
}

// demonstration is the sample world on its own PostgreSQL.
type demonstration struct {
	say     func(format string, args ...any)
	folder  string
	db      *sqlx.DB
	actions *app.App
}

// withDemoDatabase starts the demonstration's PostgreSQL, fills an empty database with the sample
// world, and stops the server once work is done.
func withDemoDatabase(ctx context.Context, cmd *cobra.Command, wanted string, reset bool,
	work func(d demonstration) error) (err error) {
	say := func(format string, args ...any) { fmt.Fprintf(cmd.OutOrStdout(), format+"\n", args...) }
	folder, err := cluster.Folder(wanted, rootsFolder)
	if err != nil {
		return err
	}
	release, err := lockFolder(folder)
	if err != nil {
		return err
	}
	defer release()
	if reset {
		if err := throwAway(ctx, folder); err != nil {
			return err
		}
	}
	say("Starting PostgreSQL (data in %s) ...", folder)
	server, err := cluster.Start(ctx, filepath.Join(folder, "cluster"), cluster.Options{})
	if err != nil {
		return err
	}
	watching, unwatch := context.WithCancel(ctx)
	watched := make(chan struct{})
	go func() {
		defer close(watched)
		server.Watch(watching, cluster.Options{}, func(what string) { say("%s", what) })
	}()
	defer func() {
		unwatch()
		<-watched
		say("Stopping PostgreSQL ...")
		if stopErr := server.Stop(); err == nil {
			err = stopErr
		}
	}()
	if err := ensureDatabase(ctx, server); err != nil {
		return err
	}
	db, actions, err := openApp(ctx, server.URL(demoDatabase), filepath.Join(folder, "blobs"))
	if err != nil {
		return err
	}
	defer db.Close()
	if err := demo.Seed(ctx, actions, func(progress string) { say("  %s", progress) }); err != nil {
		return err
	}
	return work(demonstration{say, folder, db, actions})
}

const demoDatabase = "heron"

func ensureDatabase(ctx context.Context, server *cluster.Cluster) error {
	control, err := pg.Open(ctx, server.URL("postgres"))
	if err != nil {
		return err
	}
	defer control.Close()
	return pg.EnsureDatabase(ctx, control, demoDatabase)
}

// throwAway stops a server that is still running on the folder and removes its data.
func throwAway(ctx context.Context, folder string) error {
	data := filepath.Join(folder, "cluster")
	if _, err := os.Stat(data); os.IsNotExist(err) {
		return nil
	}
	if err := cluster.StopAt(ctx, data); err != nil {
		return err
	}
	if err := os.RemoveAll(filepath.Join(folder, "blobs")); err != nil {
		return err
	}
	return os.RemoveAll(data)
}

// lockFolder keeps two demonstrations off one folder.
func lockFolder(folder string) (release func(), err error) {
	// Others may enter: the server's own user keeps its data below.
	if err := os.MkdirAll(folder, 0o755); err != nil {
		return nil, err
	}
	file, err := os.OpenFile(filepath.Join(folder, "lock"), os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return nil, err
	}
	if err := syscall.Flock(int(file.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err != nil {
		file.Close()
		return nil, fmt.Errorf(
			"another demonstration uses the data in %s; stop it, or give another folder with HERON_DATA", folder)
	}
	return func() { file.Close() }, nil
}
