// Package subnet answers whether the network settings of a machine go together: address, mask, broadcast and gateway.
//
// Source: the rules of RFC 950 and RFC 1122 for hosts with one interface. What the network allows is for whoever looks
// after it to say.
package subnet

import (
	"fmt"
	"math/bits"
	"strconv"
	"strings"

	"frugalheron/core/malformed"
)

// Settings are those of an interface, each in dotted decimal; empty for one that is not known. A mask may be a prefix,
// as /24.
type Settings struct {
	Address, Mask, Broadcast, Gateway string
}

// Result is what the settings amount to. What cannot be told is null.
type Result struct {
	OK          bool     `json:"ok"` // nothing that is known is wrong
	Network     *string  `json:"network"`
	Broadcast   *string  `json:"broadcast"` // as it should be
	MaskOK      *bool    `json:"maskOk"`
	HostOK      *bool    `json:"hostOk"`
	BroadcastOK *bool    `json:"broadcastOk"`
	GatewayOK   *bool    `json:"gatewayOk"`
	Why         []string `json:"why"`
}

// Least and most bits of a prefix that leave a network and hosts.
const (
	leastPrefix = 1
	mostPrefix  = 30
)

// read are settings as numbers; nil for one that is not known.
type read struct{ address, mask, broadcast, gateway *uint32 }

// Check lays the settings beside each other. A *malformed.Error names the field that is no address.
func Check(s Settings) (Result, error) {
	r := Result{OK: true, Why: []string{}}
	if address, prefix, found := strings.Cut(s.Address, "/"); found && s.Mask == "" {
		s.Address, s.Mask = address, "/"+prefix
	}
	var in read
	for _, one := range []struct {
		field, text string
		to          **uint32
		isMask      bool
	}{{"address", s.Address, &in.address, false}, {"mask", s.Mask, &in.mask, true},
		{"broadcast", s.Broadcast, &in.broadcast, false}, {"gateway", s.Gateway, &in.gateway, false}} {
		if strings.TrimSpace(one.text) == "" {
			continue
		}
		value, err := parse(strings.TrimSpace(one.text), one.isMask)
		if err != nil {
			return r, malformed.In(one.field, "%s", err.Error())
		}
		*one.to = &value
	}
	r.check(in)
	return r, nil
}

func (r *Result) check(in read) {
	if in.mask == nil {
		if in.address != nil {
			r.say("without a mask nobody can say where the network of %s begins and ends", dotted(*in.address))
		}
		return
	}
	prefix := bits.OnesCount32(*in.mask)
	isRun := bits.LeadingZeros32(^*in.mask) == prefix
	r.MaskOK = r.judge(isRun && prefix >= leastPrefix && prefix <= mostPrefix,
		"%s is no mask for hosts: its ones stand in one run from the left, from %d to %d of them", dotted(*in.mask),
		leastPrefix,
		mostPrefix)
	if !*r.MaskOK || in.address == nil {
		return
	}
	network := *in.address & *in.mask
	broadcast := network | ^*in.mask
	first, last := dotted(network), dotted(broadcast)
	r.Network, r.Broadcast = &first, &last
	r.HostOK = r.judge(*in.address != network && *in.address != broadcast,
		"%s is the network or its broadcast, and no host's", dotted(*in.address))
	if in.broadcast != nil {
		r.BroadcastOK = r.judge(*in.broadcast == broadcast, "the broadcast of %s/%d is %s, not %s", first, prefix, last,
			dotted(*in.broadcast))
	}
	if in.gateway == nil {
		return
	}
	switch gateway := *in.gateway; {
	case gateway&*in.mask != network:
		r.GatewayOK = r.judge(false, "the gateway %s lies outside of %s/%d: nothing reaches it", dotted(gateway), first,
			prefix)
	case gateway == network || gateway == broadcast:
		r.GatewayOK = r.judge(false, "the gateway %s is the network or its broadcast, and no host's", dotted(gateway))
	default:
		r.GatewayOK = r.judge(gateway != *in.address, "the gateway %s is the machine itself", dotted(gateway))
	}
}

func (r *Result) say(format string, args ...any) { r.Why = append(r.Why, fmt.Sprintf(format, args...)) }

// judge notes what is wrong where something is.
func (r *Result) judge(isOK bool, format string, args ...any) *bool {
	if !isOK {
		r.OK = false
		r.say(format, args...)
	}
	return &isOK
}

// parse reads four octets in decimal, or for a mask a prefix.
func parse(text string, isMask bool) (uint32, error) {
	if prefix, found := strings.CutPrefix(text, "/"); isMask && (found || !strings.Contains(text, ".")) {
		n, err := strconv.Atoi(prefix)
		if err != nil || n < 0 || n > 32 {
			return 0, fmt.Errorf("%q is no mask; write it as 255.255.255.0 or /24", text)
		}
		return ^uint32(0) << (32 - n), nil
	}
	octets := strings.Split(text, ".")
	var value uint32
	for _, octet := range octets {
		n, err := strconv.ParseUint(octet, 10, 8)
		if err != nil || len(octets) != 4 || len(octet) > 3 {
			return 0, fmt.Errorf("%q is no address; write four figures up to 255 with points between, as 192.0.2.17",
				text)
		}
		value = value<<8 | uint32(n)
	}
	return value, nil
}

func dotted(value uint32) string {
	return fmt.Sprintf("%d.%d.%d.%d", value>>24, value>>16&255, value>>8&255, value&255)
}
