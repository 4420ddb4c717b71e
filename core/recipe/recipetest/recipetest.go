// Package recipetest reads counted recipes back from what is printed of them, as a painter
// does: a test mixes what it reads.
package recipetest

import (
	"fmt"
	"regexp"
	"strconv"
	"strings"

	"gyrophane/core/paint"
	"gyrophane/core/recipe"
)

// Read is a counted recipe as it was read.
type Read struct {
	Adds  bool
	Tubes map[string]float64 // ml out of each tube, by its code: let-downs whole
	Into  map[string]float64 // ml of each paint that go into the well
}

var (
	letDown = regexp.MustCompile(`^(\S+) let down: (.+?) in (\S+) ([^;,]+?)(?:, (.+?) of that in \S+ ([^;]+?))?; `)
	count   = regexp.MustCompile(`^(: )?(\S+)( let down)? ([0-9.]+) (mm|drops?|g|brush loads?|knife tips?)`)
	amount  = regexp.MustCompile(`^([0-9.]+) `)
)

// Short reads a counted recipe in short at the beginning of a text, whatever is behind it.
// Densities are not looked at: it reads what is counted by volume.
func Short(text string, s recipe.Scale) (out Read, err error) {
	out = Read{Tubes: map[string]float64{}, Into: map[string]float64{}}
	text = strings.Join(strings.Fields(text), " ") + " "
	ml := func(words string) float64 {
		found := amount.FindStringSubmatch(words + " ")
		if found == nil {
			err = fmt.Errorf("no amount in %q", words)
			return 0
		}
		n, _ := strconv.ParseFloat(found[1], 64)
		return s.VolumeOf(recipe.Ingredient{}, n)
	}
	type shares map[string]float64
	made := map[string]shares{}
	for found := letDown.FindStringSubmatch(text); found != nil; found = letDown.FindStringSubmatch(text) {
		strong, weak := ml(found[2]), ml(found[4])
		out.Tubes[found[1]] += strong
		out.Tubes[found[3]] += weak
		share := strong / (strong + weak)
		if found[5] != "" {
			strong, weak = ml(found[5]), ml(found[6])
			out.Tubes[found[3]] += weak
			share *= strong / (strong + weak)
		}
		made[found[1]] = shares{found[1]: share, found[3]: 1 - share}
		text = text[len(found[0]):]
	}
	text, out.Adds = strings.CutPrefix(text, "+ ") // let-downs stand before the plus
	for n := 0; ; n++ {
		found := count.FindStringSubmatch(text)
		if found == nil || (n > 0) != (found[1] != "") {
			if n == 0 {
				err = fmt.Errorf("no recipe in %q", text)
			}
			return out, err
		}
		took := ml(found[4])
		if found[3] == "" {
			out.Tubes[found[2]] += took
			out.Into[found[2]] += took
		} else if made[found[2]] == nil {
			return out, fmt.Errorf("%s was never let down in %q", found[2], text)
		}
		for code, share := range made[found[2]] {
			if found[3] != "" {
				out.Into[code] += took * share
			}
		}
		text = strings.TrimPrefix(text[len(found[0]):], " ")
	}
}

// Pile is a pile of paints in ml, given by their codes.
func Pile(ml map[string]float64, of []*paint.Paint) (out []paint.Part) {
	for _, p := range of {
		if ml[p.Code()] > 0 {
			out = append(out, paint.Part{Paint: p, Parts: ml[p.Code()]})
		}
	}
	return out
}
