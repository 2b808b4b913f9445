package main

import (
	"testing"

	"github.com/stretchr/testify/require"
)

const (
	backplane = `{"slots":[{"id":"1","kind":"bus8","row":"a"},{"id":"2","kind":"bus8","row":"a"},{"id":"3",
		"kind":"bus8","row":"a"}],
		"chain":["1","2","3"],"rails":{"+5":8},"base":{"+5":1},"cards":[
		{"id":"processor","kinds":["bus8"],"at":"1","after":[],"first":true,"span":1,"grows":"up","blocks":[],
			"beside":null,
		"chain":"passes","gives":[],"needs":[],"draw":{"+5":2}},
		{"id":"disk","kinds":["bus8"],"at":"3","after":["processor"],"first":false,"span":1,"grows":"up","blocks":[],
		"beside":null,"chain":"passes","gives":[],"needs":[{"resource":"irq","choices":[3,5],"now":3,"shared":false}],
		"draw":{"+5":1.5}}]}`
	backplaneSays = `{"ok":true,"assignment":{"processor":{"slot":"1","settings":{}},
		"disk":{"slot":"3","settings":{"irq":3}}},"moves":0,"changes":0,"fillers":["2"],
		"rails":{"+5":{"draw":4.5,"rating":8,"headroom":3.5}},"problems":[{"kind":"chain","cards":["disk"],
		"detail":"slot 2 is empty before the disk: the chain needs a filler"}]}`

	sockets = `{"banks":[{"id":"A","sockets":["M1","M2"],"after":null}],"sizes":["256Kx9","1Mx9"],"allowed":null,
		"rules":{"full":true,"sameInBank":true,"parity":true,"maxNs":100,"maxBytes":null,"organisation":null},
		"fitted":{"M1":"SIMM 30-pin 256Kx9 120ns"},"stock":[],"want":524288}`
	socketsSay = `{"legal":false,"bytes":262144,"broken":[{"rule":"full","sockets":["M2"],
		"why":"the bank A is filled in full or not at all"},{"rule":"speed","sockets":["M1"],
		"why":"they are slower than 100 ns"}],"plans":[{"sockets":{"M1":"256Kx9","M2":"256Kx9"},"bytes":524288,
		"jumpers":{},"changes":2,"buy":[{"size":"256Kx9","count":2}]},{"sockets":{"M1":"1Mx9","M2":"1Mx9"},
		"bytes":2097152,"jumpers":{},"changes":2,"buy":[{"size":"1Mx9","count":2}]}],"why":""}`

	failures = `{"banks":[{"id":"low","base":"0x0","size":"0x10000","chips":{"2":"U42"}},{"id":"high","base":"0x10000",
		"size":"0x10000","chips":{"2":"U52"}}],"failures":[{"address":"0x10234","expected":"0xFF","actual":"0xFB"},
		{"address":"0x0A001","expected":"0x04","actual":"0x00"},{"address":"0x90000","expected":1,"actual":0}],
		"syndromes":{}}`
	failuresSay = `{"suspects":[{"group":"D2","kind":"data-line","share":1,
		"why":"bit 2 fails in every bank: the line or its buffer, rather than the chips"},
		{"designator":"U42","kind":"chip","share":0.5,"why":"bit 2 of the bank low fails on one line"},
		{"designator":"U52","kind":"chip","share":0.5,"why":"bit 2 of the bank high fails on one line"}],
		"unplaced":0,"problems":[{"line":3,"why":"0x90000 lies in no bank"}]}`

	tried = `{"factors":["new cable",{"name":"terminator","effort":1,"danger":false},{"name":"other disk","effort":3}],
		"trials":[{"on":[],"result":"fail"},{"on":["new cable","terminator"],"result":"ok"},
		{"on":["other disk"],"result":"fail"}],"makes":null,"maxTogether":2}`
	triedSays = `{"explanations":[{"factors":["new cable"],"makes":"ok","probability":0.47619047619047616},
		{"factors":["terminator"],"makes":"ok","probability":0.47619047619047616},
		{"factors":["new cable","terminator"],"makes":"ok","probability":0.047619047619047616}],
		"refuted":["other disk"],"confounded":[["new cable","terminator"]],"next":{"on":["new cable","other disk"],
		"why":"of 3 explanations 1 says that it goes well then, 2 that it fails; against the last trial on new cable"},
		"settled":false,"notes":[]}`
)

// The answers of the engines of setting up in their fixed form, in words, and what they refuse.
func TestSettingUpAnswersInItsForm(t *testing.T) {
	for _, c := range []struct{ name, in, out, words, wrong, place string }{
		{"slots", backplane, backplaneSays, "disk       slot 3, irq 3", `{"cards":[{"id":"a","at":"x"}]}`,
			"cards[0].at"},
		{"population", sockets, socketsSay, "buy 2 x 256Kx9", `{"sizes":["much"]}`, "sizes[0]"},
		{"memfault", failures, failuresSay, "D2           data-line    100 %", `{"failures":[{"address":-1}]}`, "-1"},
		{"trials", tried, triedSays, "always on together: new cable, terminator", `{"trials":[{"on":["x"],"result":"ok"}]}`, "x"},
	} {
		status, out, err := heron(c.in, c.name, "--json")
		require.NoError(t, err, c.name)
		require.Zero(t, status)
		require.JSONEq(t, c.out, out, c.name)
		_, out, err = heron(c.in, c.name)
		require.NoError(t, err)
		require.Contains(t, out, c.words)
		status, _, err = heron(c.wrong, c.name, "--json")
		require.Equal(t, 1, status, c.name)
		require.ErrorContains(t, err, c.place)
		status, _, err = heron(`{`, c.name)
		require.Equal(t, 1, status)
		require.Error(t, err)
	}
	_, out, err := heron("{}", "slots", "--json")
	require.NoError(t, err)
	require.JSONEq(t, `{"ok":true,"assignment":{},"moves":0,"changes":0,"fillers":[],"rails":{},"problems":[]}`, out)
}

func TestSmallSumsOnTheCommandLine(t *testing.T) {
	for _, c := range []struct {
		json, words string
		args        []string
	}{
		{`{"hz":4772726.666666667,"ratingHz":5000000,"ok":true,"note":""}`, "4.7727 MHz ok",
			[]string{"clock", "--crystal", "14.31818 MHz", "--divider", "3", "--rating", "5 MHz"}},
		{`{"bytes":540868608,"shownBytes":528482304,"limit":528482304}`, "shown 528482304",
			[]string{"disk", "--cylinders", "1048", "--heads", "16", "--sectors", "63", "--limit", "1024/16/63"}},
		{`{"ohms":300,"e12":330,"e24":300,"levels":{"e12":0.9259259259259259,"e24":1}}`, "E24 300 Ω leaves 1 V",
			[]string{"resistor", "--from", "5 V", "--to", "1 V", "--load", "75 ohm"}},
		{`{"ok":true,"va":72,"why":["220-240 V covers 230 V","frequency: 50 Hz on the plate, 50 Hz here"]}`, "72 VA",
			[]string{"mains", "--rating", "220-240 V 50 Hz", "--local", "230 V 50 Hz", "--load", "60 VA",
				"--margin", "20"}},
		{`{"ok":null,"rails":{"+5":{"draw":1,"rating":null,"headroom":null,"ok":null}}}`, "1 A drawn, unknown",
			[]string{"rails", "--draw", "+5 1"}},
	} {
		_, out, err := heron("", append([]string{"calc"}, append(c.args, "--json")...)...)
		require.NoError(t, err, c.args)
		require.JSONEq(t, c.json, out)
		_, out, err = heron("", append([]string{"calc"}, c.args...)...)
		require.NoError(t, err)
		require.Contains(t, out, c.words)
	}
	for want, args := range map[int][]string{1: {"calc", "disk", "--cylinders", "1", "--heads", "0", "--sectors", "9"},
		2: {"calc", "clock"}} {
		status, _, err := heron("", args...)
		require.Error(t, err)
		require.Equal(t, want, status, "%v", err)
	}
}
