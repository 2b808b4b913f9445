// Package lot answers: what did each thing of a lot cost, and was it worth it? A lot is bought for one
// price, with carriage and fees on top; the whole is spread over its items so that the shares add up to
// the cent, however they are rounded. Amounts are in cents, the hundredth part of a currency's unit.
package lot

import (
	"cmp"
	"errors"
	"fmt"
	"math/bits"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"frugalheron/core/malformed"
)

// SpreadRule is how the cost of a lot is spread over its items.
type SpreadRule string

// Ways of spreading.
const (
	ByEstimate SpreadRule = "estimate" // in proportion to what each item is thought to be worth
	Equally    SpreadRule = "equal"    // the same for each
	ByHand     SpreadRule = "hand"     // as somebody says
)

// Item is a thing of a lot.
type Item struct {
	ID       int64
	Title    string
	Estimate *int64 // what it was thought to be worth when the lot was spread; nil when nobody said
	ByHand   *int64 // its share as somebody said it
	Value    *int64 // what it is worth today, or was passed on for; nil when nobody knows
}

// MostCents bounds an amount: ten thousand million of a currency's units.
const MostCents = 1_000_000_000_000

// Spread divides a cost over the items; the shares are in their order and add up to it. Each share is
// the exact one rounded down or up to a cent; who gets the cents left over is settled by the largest
// remainder, and among equal ones by the order of the items.
func Spread(cost int64, way SpreadRule, items []Item) ([]int64, error) {
	if cost < 0 || cost > MostCents {
		return nil, malformed.Of("the cost is out of bounds")
	}
	if len(items) == 0 {
		return []int64{}, nil
	}
	weights := make([]int64, len(items))
	for i, item := range items {
		switch way {
		case Equally:
			weights[i] = 1
		case ByEstimate:
			if item.Estimate != nil {
				weights[i] = *item.Estimate
			}
		case ByHand:
			if item.ByHand == nil {
				return nil, malformed.Of("%s", item.Title+" has no share yet; write one, 0.00 too")
			}
			weights[i] = *item.ByHand
		default:
			return nil, malformed.Of("is none of estimate, equal, hand")
		}
		if weights[i] < 0 || weights[i] > MostCents {
			return nil, malformed.Of("%s", "the amount of "+item.Title+" is out of bounds")
		}
	}
	sum := int64(0)
	for _, w := range weights {
		sum += w
	}
	if way == ByHand {
		if sum != cost {
			return nil, malformed.Of("%s", handOff(cost, sum))
		}
		return weights, nil
	}
	if sum == 0 {
		return nil, malformed.Of("no item has an estimate above 0.00; give at least one, or spread equally")
	}
	return largestRemainder(cost, weights, sum), nil
}

func handOff(cost, sum int64) string {
	if sum < cost {
		return fmt.Sprintf("the shares add up to %s; %s of %s is not spread yet", Format(sum), Format(cost-sum),
			Format(cost))
	}
	return fmt.Sprintf("the shares add up to %s; that is %s more than %s", Format(sum), Format(sum-cost), Format(cost))
}

func largestRemainder(cost int64, weights []int64, sum int64) []int64 {
	shares, remainders := make([]int64, len(weights)), make([]uint64, len(weights))
	left := cost
	for i, w := range weights {
		hi, lo := bits.Mul64(uint64(cost), uint64(w))
		quotient, remainder := bits.Div64(hi, lo, uint64(sum))
		shares[i], remainders[i] = int64(quotient), remainder
		left -= shares[i]
	}
	order := make([]int, len(weights))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(remainders[b], remainders[a]) })
	for _, i := range order[:left] {
		shares[i]++
	}
	return shares
}

// Worth is what the things of a lot are worth against what it cost.
type Worth struct {
	Cost    int64    `json:"cost" doc:"In cents, with all extra costs"`
	Value   int64    `json:"value" doc:"In cents, of the items whose value is known"`
	Unknown int      `json:"unknown" doc:"Items whose value nobody has said"`
	Verdict string   `json:"verdict" doc:"Empty while no value is known"`
	Why     []string `json:"why" says:"text"`
}

// WorthOf weighs the known values against the cost. Where one item alone outweighs the lot, or a few
// do, it says which.
func WorthOf(cost int64, items []Item) Worth {
	w := Worth{Cost: cost, Why: []string{}}
	known := []Item{}
	for _, item := range items {
		if item.Value == nil {
			w.Unknown++
			continue
		}
		w.Value += *item.Value
		known = append(known, item)
	}
	if len(known) == 0 {
		return w
	}
	slices.SortStableFunc(known, func(a, b Item) int { return cmp.Compare(*b.Value, *a.Value) })
	reached := int64(0)
	for n, item := range known {
		reached += *item.Value
		w.Why = append(w.Why, fmt.Sprintf("%s %s", item.Title, Format(*item.Value)))
		if reached < cost {
			continue
		}
		switch n {
		case 0:
			w.Verdict = fmt.Sprintf("%s alone outweighs the whole lot: %s against %s", item.Title, Format(*item.Value),
				Format(cost))
		default:
			w.Verdict = fmt.Sprintf("%d of %d items outweigh the whole lot: %s against %s", n+1, len(items),
				Format(reached), Format(cost))
		}
		return w
	}
	w.Verdict = fmt.Sprintf("Known values fall short of the cost by %s", Format(cost-w.Value))
	if w.Unknown > 0 {
		w.Verdict += fmt.Sprintf("; %d of %d items have no value yet", w.Unknown, len(items))
	}
	return w
}

// Format writes cents as an amount with two decimals.
func Format(cents int64) string { return fmt.Sprintf("%d.%02d", cents/100, cents%100) }

var (
	amount = regexp.MustCompile(`^(\d{1,10})(?:[.,](\d{1,2}))?$`)
	// ErrNotAnAmount is returned for text that is no amount of money.
	ErrNotAnAmount = errors.New("write an amount as 371.00, without currency and without marks between thousands")
)

// ParseAmount reads an amount of money in cents.
func ParseAmount(text string) (int64, error) {
	m := amount.FindStringSubmatch(strings.TrimSpace(text))
	if m == nil {
		return 0, ErrNotAnAmount
	}
	units, err := strconv.ParseInt(m[1], 10, 64)
	if err != nil {
		return 0, ErrNotAnAmount
	}
	hundredths, _ := strconv.ParseInt((m[2] + "00")[:2], 10, 64)
	return units*100 + hundredths, nil
}
