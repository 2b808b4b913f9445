package main

import (
	"context"
	"crypto/rand"
	"errors"
	"io/fs"
	"net"
	"os"
	"path/filepath"
	"strconv"

	"frugalheron/app"
	"frugalheron/demo"
)

const openWarning = `
  WARNING  Everybody in this network can reach these addresses, and what is sent is not encrypted.
           Use it only in a network that you trust, for as long as you need it. The sample passwords
           are replaced by the ones above while it is open.`

// openMark says that the sample passwords were replaced.
const openMark = "passwords-replaced"

// demoPasswords sees to the passwords of the sample accounts. The sample ones are known to everybody:
// they serve on loopback only, and are replaced by random ones wherever others can reach the server.
func demoPasswords(ctx context.Context, actions *app.App, folder string, loopback bool) ([]demo.Account, error) {
	mark := filepath.Join(folder, openMark)
	accounts := append([]demo.Account{}, demo.Accounts...)
	if loopback {
		if _, err := os.Stat(mark); errors.Is(err, fs.ErrNotExist) {
			return accounts, nil
		}
	} else {
		if err := os.WriteFile(mark, nil, 0o600); err != nil {
			return nil, err
		}
		for i := range accounts {
			accounts[i].Password = rand.Text()
		}
	}
	for _, account := range accounts {
		if err := actions.Accounts.ReplacePassword(ctx, account.Login, account.Password); err != nil {
			return nil, err
		}
	}
	if loopback {
		return accounts, os.Remove(mark)
	}
	return accounts, nil
}

// addresses lists where a server can be reached: for one that listens everywhere, at each address of
// this machine.
func addresses(listening *net.TCPAddr) []string {
	port := strconv.Itoa(listening.Port)
	if !listening.IP.IsUnspecified() {
		return []string{net.JoinHostPort(listening.IP.String(), port)}
	}
	found := []string{net.JoinHostPort("127.0.0.1", port)}
	all, err := net.InterfaceAddrs()
	if err != nil {
		return found
	}
	for _, address := range all {
		if network, ok := address.(*net.IPNet); ok && !network.IP.IsLoopback() && network.IP.To4() != nil {
			found = append(found, net.JoinHostPort(network.IP.String(), port))
		}
	}
	return found
}
