package practice

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"

	"frugalheron/core/practice"
	"frugalheron/instruments/line"
)

// Client tells the bench with the practice machine what to be.
type Client struct{ connection *line.Connection }

// Dial finds it at an address, as 127.0.0.1:7074.
func Dial(ctx context.Context, address string) (*Client, error) {
	connection, err := line.Dial(ctx, address)
	if err != nil {
		return nil, fmt.Errorf("no practice machine answers at %s: %w", address, err)
	}
	c := &Client{connection}
	if name, err := c.ask(ctx, "*IDN?"); err != nil || !strings.Contains(name, "stand-in machine") {
		c.Close() //nolint:errcheck // what went wrong is told
		return nil, fmt.Errorf("what answers at %s is no practice machine (%s)", address, line.Shown(name))
	}
	return c, nil
}

// Close hangs up.
func (c *Client) Close() error { return c.connection.Close("") }

func (c *Client) ask(ctx context.Context, question string) (string, error) {
	answer, err := c.connection.Ask(ctx, question)
	if why, isRefused := strings.CutPrefix(answer, "ERR "); isRefused && err == nil {
		return "", fmt.Errorf("the practice machine refuses: %s", line.Shown(why))
	}
	return answer, err
}

// Profiles lists what its console can be, and what it is.
func (c *Client) Profiles(ctx context.Context) (all []string, now string, err error) {
	told, err := c.ask(ctx, "SIM:PROFILES?")
	if err != nil {
		return nil, "", err
	}
	var at state
	answer, err := c.ask(ctx, "SIM:STATE?")
	if err == nil {
		err = json.Unmarshal([]byte(answer), &at)
	}
	return strings.Split(told, ";"), at.Profile, err
}

// Play makes the console one of the profiles.
func (c *Client) Play(ctx context.Context, profile string) error {
	_, err := c.ask(ctx, "SIM:PROFILE "+profile)
	return err
}

// Put makes the bench stand as it is told, and says which lamps are lit.
func (c *Client) Put(ctx context.Context, bench Bench) (lamps string, err error) {
	told, err := json.Marshal(bench)
	if err != nil {
		return "", err
	}
	if _, err := c.ask(ctx, "SIM:BENCH "+string(told)); err != nil {
		return "", err
	}
	var at state
	answer, err := c.ask(ctx, "SIM:STATE?")
	if err == nil {
		err = json.Unmarshal([]byte(answer), &at)
	}
	return at.Lamps, err
}

// Answer is what is wrong with the machine on the bench.
func (c *Client) Answer(ctx context.Context) (is practice.NamedFault, err error) {
	answer, err := c.ask(ctx, "SIM:ANSWER?")
	if err == nil {
		err = json.Unmarshal([]byte(answer), &is)
	}
	return is, err
}
