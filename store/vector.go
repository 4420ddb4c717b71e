package store

import (
	"encoding/json"
	"maps"
)

// VersionVector counts the changes that each profile made to a thing, by the profile's lasting id. Of two
// states of one thing that with no fewer of anybody's changes came later; where each has changes that the
// other has not, the thing went two ways. No clock is asked.
type VersionVector map[string]int64

// Order is how one state of a thing stands to another.
type Order int

// The orders.
const (
	Same Order = iota
	Older
	Newer
	TwoWays
)

// Against says how a state stands to another one.
func (v VersionVector) Against(other VersionVector) Order {
	less, more := false, false
	for who, n := range v {
		more = more || n > other[who]
	}
	for who, n := range other {
		less = less || n > v[who]
	}
	switch {
	case less && more:
		return TwoWays
	case less:
		return Older
	case more:
		return Newer
	}
	return Same
}

// With is what knows of all changes of both.
func (v VersionVector) With(other VersionVector) VersionVector {
	out := maps.Clone(v)
	if out == nil {
		out = VersionVector{}
	}
	for who, n := range other {
		out[who] = max(out[who], n)
	}
	return out
}

// text is how a count is kept.
func (v VersionVector) text() string {
	if v == nil {
		v = VersionVector{}
	}
	data, err := json.Marshal(v)
	if err != nil {
		panic(err) // of numbers by texts
	}
	return string(data)
}

func parseVector(text string) (out VersionVector, err error) {
	err = json.Unmarshal([]byte(text), &out)
	return out, err
}
