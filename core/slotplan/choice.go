package slotplan

import (
	"encoding/json"
	"fmt"
	"strconv"
	"strings"
)

// Choice is a setting: a number, or a window of addresses as written, hexadecimal, both ends included.
type Choice struct {
	written  any // as it stood in the input
	from, to uint64
	err      error
}

// Number is a choice that is a number.
func Number(n uint64) Choice { return Choice{written: n, from: n, to: n} }

// Window is a choice as it is written: 300-31f, 2f8.
func Window(text string) Choice {
	c := Choice{written: text}
	first, last, isRange := strings.Cut(strings.TrimSpace(text), "-")
	var err error
	if c.from, err = hexadecimal(first); err == nil {
		c.to = c.from
		if isRange {
			c.to, err = hexadecimal(last)
		}
	}
	switch {
	case err != nil:
		c.err = fmt.Errorf("%q is no window of addresses; write it as 300-31f", text)
	case c.from > c.to:
		c.err = fmt.Errorf("%q ends before it begins", text)
	}
	return c
}

func hexadecimal(text string) (uint64, error) {
	return strconv.ParseUint(strings.TrimSpace(text), 16, 64)
}

// UnmarshalJSON takes a number or a text.
func (c *Choice) UnmarshalJSON(data []byte) error {
	text := string(data)
	if strings.HasPrefix(text, `"`) {
		if err := json.Unmarshal(data, &text); err != nil {
			return err
		}
		*c = Window(text)
		return nil
	}
	n, err := strconv.ParseUint(text, 10, 64)
	if err != nil {
		return fmt.Errorf("%s is no setting; write a whole number, or a window as \"300-31f\"", text)
	}
	*c = Number(n)
	return nil
}

// MarshalJSON writes it as it was written.
func (c Choice) MarshalJSON() ([]byte, error) { return json.Marshal(c.written) }

// meets reports whether two settings of one resource have something in common.
func (c Choice) meets(other Choice) bool { return c.from <= other.to && other.from <= c.to }

func (c Choice) equals(other Choice) bool { return c.from == other.from && c.to == other.to }

func (c Choice) String() string { return fmt.Sprint(c.written) }

// ChoiceOf reads a choice of a resource as people write it: interrupts and channels are whole numbers, addresses windows.
// Choices that are equal are written in one way.
func ChoiceOf(resource, text string) (Choice, error) {
	if resource == "irq" || resource == "dma" {
		n, err := strconv.ParseUint(strings.TrimSpace(text), 10, 16)
		if err != nil {
			return Choice{}, fmt.Errorf("%q is no %s; write a whole number", text, resource)
		}
		return Number(n), nil
	}
	c := Window(strings.TrimSpace(text))
	if c.err != nil {
		return Choice{}, c.err
	}
	if c.from == c.to {
		return Window(fmt.Sprintf("%X", c.from)), nil
	}
	return Window(fmt.Sprintf("%X-%X", c.from, c.to)), nil
}
