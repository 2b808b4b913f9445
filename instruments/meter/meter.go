// Package meter measures through a bench meter on the network that understands SCPI (the 1999 standard's
// common commands and its MEASure subsystem), and holds the stand-in that ships in its place.
//
//	*IDN?             maker, model, serial number, version, with commas between
//	MEAS:VOLT:DC?     a figure, as +4.9312E+00; 9.9E37 says overload
//	SYST:ERR?         0,"No error", or the number and words of the last error
//
// docs/meter.md tells of it in full.
package meter

import (
	"context"
	"errors"
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"

	"frugalheron/core/quantity"
	"frugalheron/instruments/line"
)

// functions are the questions by what is measured.
var functions = map[quantity.Quantity]string{
	quantity.Volts: "MEAS:VOLT:DC?", quantity.VoltsAC: "MEAS:VOLT:AC?", quantity.Amperes: "MEAS:CURR:DC?",
	quantity.Ohms:        "MEAS:RES?",
	quantity.Microfarads: "MEAS:CAP?", quantity.Hertz: "MEAS:FREQ?", quantity.Seconds: "MEAS:PER?",
	quantity.Celsius: "MEAS:TEMP?",
}

// farads is how a meter gives what is kept in microfarads.
const farads = 1e6

// overload is from where a figure means that the range was not enough.
const overload = 9e37

// ErrLost is returned when the meter hangs up or does not answer; readings taken before stay good.
var ErrLost = errors.New("the meter does not answer any more")

// ErrOverload is returned when the value is beyond what the meter can show.
var ErrOverload = errors.New(
	"the meter shows overload: the value is beyond its range, or the leads touch nothing; check the range and where the leads are before the next reading")

// RefusedError is what the meter itself says it cannot do.
type RefusedError struct{ Why string }

// Error gives the meter's reason.
func (e *RefusedError) Error() string { return "the meter refuses: " + e.Why }

// Knows reports whether a meter measures a quantity at all.
func Knows(of quantity.Quantity) bool { return functions[of] != "" }

// Client talks to a meter.
type Client struct {
	connection *line.Connection
	name       string
}

// Dial finds the meter at an address, as 127.0.0.1:7072.
func Dial(ctx context.Context, address string) (*Client, error) {
	connection, err := line.Dial(ctx, address)
	if err != nil {
		return nil, fmt.Errorf("no meter answers at %s: %w", address, err)
	}
	c := &Client{connection: connection}
	if c.name, err = c.ask(ctx, "*IDN?"); err != nil {
		connection.Close("") //nolint:errcheck // what went wrong is told
		return nil, err
	}
	c.name = line.Shown(strings.ReplaceAll(c.name, ",", " "))
	return c, nil
}

// Name is what the meter calls itself.
func (c *Client) Name() string { return c.name }

// Close hangs up.
func (c *Client) Close() error { return c.connection.Close("") }

func (c *Client) ask(ctx context.Context, question string) (string, error) {
	answer, err := c.connection.Ask(ctx, question)
	if errors.Is(err, line.ErrLost) {
		return "", fmt.Errorf("%w (%v)", ErrLost, err)
	}
	return answer, err
}

// Read takes one reading, in the unit in which the quantity is kept.
func (c *Client) Read(ctx context.Context, of quantity.Quantity) (float64, error) {
	question := functions[of]
	if question == "" {
		return 0, &RefusedError{fmt.Sprintf("a meter does not measure %s; type what you read", of.Unit())}
	}
	answer, err := c.ask(ctx, question)
	if err != nil {
		return 0, err
	}
	value, err := decimal(answer)
	if err != nil {
		why, asked := c.ask(ctx, "SYST:ERR?")
		if asked != nil {
			return 0, asked
		}
		return 0, &RefusedError{fmt.Sprintf("to %s it answered %.40q (%s)", question, answer, why)}
	}
	if math.Abs(value) >= overload {
		return 0, ErrOverload
	}
	if of == quantity.Microfarads {
		value *= farads
	}
	if err := of.Check(value); err != nil {
		return 0, &RefusedError{fmt.Sprintf("to %s it answered %s: %v", question, line.Shown(answer), err)}
	}
	return value, nil
}

// plain is a number as IEEE 488.2 has instruments write it (NR1 to NR3): figures, a point, a power of ten.
var plain = regexp.MustCompile(`^[+-]?(\d+(\.\d*)?|\.\d+)([eE][+-]?\d+)?$`)

func decimal(text string) (float64, error) {
	if !plain.MatchString(text) {
		return 0, strconv.ErrSyntax
	}
	return strconv.ParseFloat(text, 64)
}

// isStandIn reports whether it says of itself that it is one of ours: others are told nothing that no meter knows.
func (c *Client) isStandIn() bool { return strings.Contains(c.name, standInName) }

// State says where a stand-in's leads are and what it gets wrong; nothing for a real meter.
func (c *Client) State(ctx context.Context) (point, fault string, err error) {
	if !c.isStandIn() {
		return "", "", nil
	}
	answer, err := c.ask(ctx, "SIM:STATE?")
	point, fault, _ = strings.Cut(answer, ";")
	return point, fault, err
}

// Touch puts a stand-in's leads to a point, or tells it what to get wrong, one of Faults; what is empty stays as it is. A
// real meter refuses.
func (c *Client) Touch(ctx context.Context, point, fault string) error {
	if !c.isStandIn() {
		return &RefusedError{c.name + " is no stand-in; put the leads there by hand"}
	}
	told := []string{}
	if point != "" {
		told = append(told, "SIM:POINT "+point)
	}
	if fault != "" {
		told = append(told, "SIM:FAULT "+fault)
	}
	for _, tell := range told {
		if err := c.connection.Tell(ctx, tell); errors.Is(err, line.ErrLost) {
			return fmt.Errorf("%w (%v)", ErrLost, err)
		} else if err != nil {
			return err
		}
	}
	why, err := c.ask(ctx, "SYST:ERR?")
	if err == nil && !strings.HasPrefix(why, "0,") && !strings.HasPrefix(why, "+0,") {
		return &RefusedError{why}
	}
	return err
}

// Points lists what a stand-in's leads can be put to; none for a real meter.
func (c *Client) Points(ctx context.Context) ([]string, error) {
	if !c.isStandIn() {
		return []string{}, nil
	}
	answer, err := c.ask(ctx, "SIM:POINTS?")
	if err != nil || answer == "" {
		return []string{}, err
	}
	return strings.Split(answer, ";"), nil
}
