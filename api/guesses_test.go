package api_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"gyrophane/api"
	"gyrophane/wire"
)

func TestPairingsAreGuessedOnceAndScored(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	ada.ok("POST", "/api/box/paints", `{"paints":["PB60"]}`, nil)
	tube := fmt.Sprintf("tube-%d", ada.tube("PB60").ID)
	var got api.Guesses
	ada.ok("POST", "/api/guesses", `[{"a":"PY74","b":"PB15:3","hueWord":"green","verdict":"clean","mud":{"nowhere":true,"at":0}},
		{"a":"PY74","b":"`+tube+`","hueWord":"violet","verdict":"clean","mud":{"nowhere":false,"at":0.5}}]`, &got)
	require.Len(t, got.Guesses, 2)
	assert.Equal(t, 6, got.Guesses[1].Points)
	assert.Equal(t, "green", got.Guesses[1].Section)
	assert.False(t, got.Guesses[0].HueRight)
	require.Len(t, got.Sections, 1)
	assert.Equal(t, 12, got.Sections[0].OutOf)

	var pairings wire.Pairings
	ada.ok("POST", "/api/pairings", `{"system":`+strings.Replace(aSystem, "PY184", "PY74", 1)+`}`, &pairings)
	var pair wire.Pair
	ada.ok("GET", "/api/pair?a=PB15:3&b=PY74", "", &pair)
	assert.Equal(t, got.Guesses[1].Key, pair.Key, "the path knows that it was guessed, from either end")
	for _, p := range pairings.Pairs {
		assert.NotEqual(t, got.Guesses[1].Key, p.Key)
	}

	for says, body := range map[string]string{
		"predicted before":            `[{"a":"PB15:3","b":"PY74","hueWord":"green","verdict":"clean","mud":{"nowhere":true,"at":0}}]`,
		"paired with itself":          `[{"a":"PY74","b":"py74","hueWord":"green","verdict":"clean","mud":{"nowhere":true,"at":0}}]`,
		"no hue of the wheel":         `[{"a":"PY74","b":"PR122","hueWord":"teal","verdict":"clean","mud":{"nowhere":true,"at":0}}]`,
		"expected value to be one of": `[{"a":"PY74","b":"PR122","hueWord":"orange","verdict":"neutral","mud":{"nowhere":true,"at":0}}]`,
		"no hue between them":         `[{"a":"PW6","b":"PBk9","hueWord":"orange","verdict":"muddy","mud":{"nowhere":true,"at":0}}]`,
		"<= 1":                        `[{"a":"PY74","b":"PR122","hueWord":"orange","verdict":"clean","mud":{"nowhere":false,"at":7}}]`,
	} {
		status, text := ada.do("POST", "/api/guesses", body)
		assert.Equal(t, 422, status, text)
		assert.Contains(t, text, says)
	}
	status, text := eve.do("POST", "/api/guesses", `[{"a":"PY74","b":"`+tube+`","hueWord":"green","verdict":"clean","mud":{"nowhere":true,"at":0}}]`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "no tube of your box")
	eve.ok("GET", "/api/guesses", "", &got)
	assert.Empty(t, got.Guesses)
}

func TestARoundOfPractice(t *testing.T) {
	app, _ := server(t, true)
	ada, eve := signedUp(t, app, "Ada"), signedUp(t, app, "Eve")
	status, text := ada.do("POST", "/api/practice", "")
	assert.Equal(t, 422, status, "an empty box")
	assert.Contains(t, text, "add paints")
	ada.ok("POST", "/api/box/paints", `{"paints":["PB60","PB15:3","PR122","PR254","PY74","PY65","PW6"]}`, nil)

	var got, again api.Practice
	ada.ok("GET", "/api/practice", "", &got)
	require.Nil(t, got.Round)
	ada.ok("POST", "/api/practice", "", &got)
	require.NotNil(t, got.Round)
	require.Len(t, got.Round.Pairs, 10)
	ada.ok("POST", "/api/practice", "", &again)
	assert.Equal(t, got.Round.ID, again.Round.ID, "the one under way")

	answers := fmt.Sprintf("/api/practice/%d/answers", got.Round.ID)
	answer := func(place int) string {
		return fmt.Sprintf(`{"place":%d,"hueWord":"green","verdict":"clean","mud":{"nowhere":true,"at":0}}`, place)
	}
	status, _ = eve.do("POST", answers, answer(0))
	assert.Equal(t, 404, status, "another's round")
	for place, p := range got.Round.Pairs {
		assert.Nil(t, p.Outcome)
		assert.Empty(t, p.Band, "what is covered is not told")
		ada.ok("POST", answers, answer(place), &again)
		lifted := again.Round.Pairs[place]
		require.NotNil(t, lifted.Outcome)
		assert.NotEmpty(t, lifted.Band)
		assert.NotEmpty(t, lifted.Because)
		assert.Equal(t, "green", lifted.Said.HueWord)
	}
	status, text = ada.do("POST", answers, answer(3))
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "answered before")
	got = api.Practice{}
	ada.ok("GET", "/api/practice", "", &got)
	assert.Nil(t, got.Round, "it has come to its end")
	var all api.Guesses
	ada.ok("GET", "/api/guesses", "", &all)
	require.Len(t, all.Rounds, 1)
	assert.Equal(t, 60, all.Rounds[0].OutOf)
	assert.Equal(t, again.Round.Points, all.Rounds[0].Points)

	ada.ok("POST", "/api/practice?spacing=parts", "", &got)
	assert.Equal(t, "parts", got.Round.Spacing)
	status, _ = eve.do("DELETE", fmt.Sprintf("/api/practice/%d", got.Round.ID), "")
	assert.Equal(t, 404, status)
	ada.ok("DELETE", fmt.Sprintf("/api/practice/%d", got.Round.ID), "", nil)
	got = api.Practice{}
	ada.ok("GET", "/api/practice", "", &got)
	assert.Nil(t, got.Round)
}
