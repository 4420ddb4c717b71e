package store

import (
	"net/url"
	"slices"
	"strconv"
	"strings"

	"gyrophane/core/bench"
)

// What is kept names tubes by their ids, which are others wherever it is carried. With is the same with other ids.

// With is a snapshot with paints of other ids.
func (s Snapshot) With(is func(id string) string) Snapshot {
	out := Snapshot{System: s.System.With(is), Frozen: frozenWith(s.Frozen, is)}
	return out
}

func frozenWith(of map[string]FrozenTube, is func(id string) string) map[string]FrozenTube {
	out := map[string]FrozenTube{}
	for id, t := range of {
		out[is(id)] = t
	}
	return out
}

// With is a plan with paints of other ids.
func (p SittingPlan) With(is func(id string) string) SittingPlan {
	out := p
	out.Paints = frozenWith(p.Paints, is)
	out.Recipes = nil
	for _, r := range p.Recipes {
		out.Recipes = append(out.Recipes, partsWith(r, is))
	}
	for k := range out.Ends {
		for n, id := range out.Ends[k] {
			if id != "" {
				out.Ends[k][n] = is(id)
			}
		}
	}
	return out
}

func partsWith(parts []KeptPart, is func(id string) string) (out []KeptPart) {
	for _, p := range parts {
		if len(p.Of) == 0 { // what is mixed first has a name of its own
			p.Paint = is(p.Paint)
		}
		if p.In != "" {
			p.In = is(p.In)
		}
		p.Of = partsWith(p.Of, is)
		out = append(out, p)
	}
	return out
}

// eventWith is an event with paints of other ids.
func eventWith(e bench.Event, is func(id string) string) bench.Event {
	e.Used = slices.Clone(e.Used)
	for i := range e.Used {
		u := &e.Used[i]
		u.Paint = is(u.Paint)
		if u.In != "" {
			u.In = is(u.In)
		}
	}
	return e
}

// WheelsOf are the kept wheels that the address of a comparison names.
func WheelsOf(address string) (out []int64) {
	asked, err := url.ParseQuery(address)
	if err != nil {
		return nil
	}
	for _, text := range strings.Split(asked.Get("systems"), ",") {
		if id, err := strconv.ParseInt(text, 10, 64); err == nil {
			out = append(out, id)
		}
	}
	return out
}

// addressWith is the address of a comparison with wheels of other ids, all else as it was; those that are 0 are
// left out.
func addressWith(address string, is func(id int64) int64) string {
	pieces := strings.Split(address, "&")
	for i, piece := range pieces {
		value, of := strings.CutPrefix(piece, "systems=")
		if !of {
			continue
		}
		between := ","
		if strings.Contains(value, "%2C") {
			between = "%2C"
		}
		var out []string
		for _, text := range strings.Split(value, between) {
			id, err := strconv.ParseInt(text, 10, 64)
			if err != nil {
				out = append(out, text)
			} else if to := is(id); to != 0 {
				out = append(out, strconv.FormatInt(to, 10))
			}
		}
		pieces[i] = "systems=" + strings.Join(out, between)
	}
	return strings.Join(pieces, "&")
}
