package cluster

import (
	"fmt"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"strconv"
	"syscall"
)

// serverUser is the user that the server runs as where we are root: PostgreSQL refuses root.
type serverUser struct{ uid, gid int }

func userForServer() (*serverUser, error) {
	if os.Geteuid() != 0 {
		return nil, nil
	}
	postgres, err := user.Lookup("postgres")
	if err != nil {
		return nil, fmt.Errorf("PostgreSQL does not run as root, and there is no user postgres to run it as: %w", err)
	}
	uid, errUID := strconv.Atoi(postgres.Uid)
	gid, errGID := strconv.Atoi(postgres.Gid)
	if errUID != nil || errGID != nil {
		return nil, fmt.Errorf("user postgres has no numeric id: %q, %q", postgres.Uid, postgres.Gid)
	}
	return &serverUser{uid, gid}, nil
}

func (u *serverUser) apply(cmd *exec.Cmd) {
	if u != nil {
		cmd.SysProcAttr = &syscall.SysProcAttr{Credential: &syscall.Credential{Uid: uint32(u.uid), Gid: uint32(u.gid)}}
	}
}

// Folder returns where a cluster can keep its data: the wanted folder, or, where we are root and
// the server's own user cannot enter a folder above it, one below otherwise.
func Folder(wanted, otherwise string) (string, error) {
	wanted, err := filepath.Abs(wanted)
	if err != nil {
		return "", err
	}
	server, err := userForServer()
	if err != nil || server == nil {
		return wanted, err
	}
	for parent := filepath.Dir(wanted); ; parent = filepath.Dir(parent) {
		info, err := os.Stat(parent)
		if err == nil && info.Mode().Perm()&0o001 == 0 {
			return otherwise, nil
		}
		if parent == filepath.Dir(parent) {
			return wanted, nil
		}
	}
}
