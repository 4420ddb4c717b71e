package exchange

import (
	"bytes"
	"encoding/csv"
	"encoding/xml"
	"fmt"
	"math"
	"strings"

	"gyrophane/core/reach"
)

// CSV is the figures of a comparison as a table: a row a system, then how far
// each reaches in every bin of wheel hue.
func (c Comparison) CSV() []byte {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	header := []string{"system", "kind", "paints", "clean_coverage", "soft_coverage", "widest_gap_degrees", "gap_from", "gap_to", "darkest_l", "complement_middles_c", "evenness", "jumps", "lamp_de00", "tubes", "price", "cautions"}
	for bin := range reach.Bins {
		header = append(header, fmt.Sprintf("reach_%.1f", reach.Middle(bin)))
	}
	w.Write(header) //nolint:errcheck // a buffer takes everything
	for _, s := range c.Systems {
		var paints []string
		for _, p := range s.Paints {
			paints = append(paints, p.Code)
		}
		price := ""
		if s.Price != nil {
			price = plain(*s.Price)
		}
		row := []string{textCell(s.Name), s.Kind, textCell(strings.Join(paints, " ")), plain(s.CleanCoverage), plain(s.SoftCoverage), plain(s.WidestGap.Degrees), s.WidestGap.From, s.WidestGap.To,
			plain(s.Darkest.Lab[0]), plain(s.Middles), plain(s.Evenness), fmt.Sprint(s.Jumps), plain(s.Lamp.DE), fmt.Sprint(s.Tubes), price, strings.Join(s.Cautions, "; ")}
		for _, r := range s.Reach {
			row = append(row, plain(r))
		}
		w.Write(row) //nolint:errcheck
	}
	w.Flush()
	return b.Bytes()
}

// RecipesCSV is what each system mixes for each wanted colour, a row each.
func RecipesCSV(systems []Named, wanted []WantedColour) []byte {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	w.Write([]string{"wanted", "L", "a", "b", "system", "recipe", "de00", "de00_lamp", "reached", "how"}) //nolint:errcheck // a buffer takes everything
	for _, c := range wanted {
		for i, m := range c.Matches {
			lamp := ""
			if m.DELamp != nil {
				lamp = plain(*m.DELamp)
			}
			w.Write([]string{textCell(c.Name), plain(c.Want.Lab[0]), plain(c.Want.Lab[1]), plain(c.Want.Lab[2]), textCell(systems[i].Name), InParts(m.Recipe), plain(m.DE), lamp, map[bool]string{true: "yes", false: "no"}[m.Reached], textCell(strings.Join(m.Mixing, " "))}) //nolint:errcheck
		}
	}
	w.Flush()
	return b.Bytes()
}

// textCell is a field that no spreadsheet takes for a formula.
func textCell(s string) string {
	return disarm(oneLine(s))
}

// outlineDashes are how the outlines of systems are drawn apart.
var outlineDashes = [MostCompared]string{"", "9 5", "0.1 6", "15 4 2 4"}

// SVG draws the reaches of a comparison over each other, outward brighter and
// yellow on top, with the figures of each below.
func (c Comparison) SVG() []byte {
	const (
		width, centre      = 520, 260.0
		inner, outer, foot = 60.0, 200.0, 530
	)
	var b bytes.Buffer
	text := func(s string) string {
		var out bytes.Buffer
		xml.EscapeText(&out, []byte(oneLine(s))) //nolint:errcheck // a buffer takes everything
		return out.String()
	}
	at := func(wheelHue, r float64) (x, y float64) {
		a := (120 - wheelHue - 90) * math.Pi / 180
		return centre + r*math.Cos(a), centre + r*math.Sin(a)
	}
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" font-family="sans-serif" font-size="14">`+"\n", width, foot+34*len(c.Systems))
	fmt.Fprintf(&b, `<rect width="100%%" height="100%%" fill="#f7f7f7"/>`+"\n")
	for _, r := range []float64{inner, inner + c.Clean*(outer-inner), outer} {
		fmt.Fprintf(&b, `<circle cx="%.0f" cy="%.0f" r="%.1f" fill="none" stroke="#cfcfcf"/>`+"\n", centre, centre, r)
	}
	for _, h := range []struct {
		name string
		hue  float64
	}{{"yellow", 120}, {"orange", 60}, {"red", 0}, {"violet", 300}, {"blue", 240}, {"green", 180}} {
		x, y := at(h.hue, outer+30)
		fmt.Fprintf(&b, `<text x="%.1f" y="%.1f" text-anchor="middle" fill="#161616">%s</text>`+"\n", x, y+5, h.name)
	}
	for i, s := range c.Systems {
		var d strings.Builder
		for bin, r := range s.Reach {
			x, y := at(reach.Middle(bin), inner+r*(outer-inner))
			fmt.Fprintf(&d, "%s%.1f %.1f ", map[bool]string{true: "M", false: "L"}[bin == 0], x, y)
		}
		stroke := fmt.Sprintf(`stroke="#161616" stroke-width="2" stroke-dasharray="%s" stroke-linecap="round"`, outlineDashes[i])
		fmt.Fprintf(&b, `<path d="%sZ" fill="none" %s/>`+"\n", d.String(), stroke)
		y := foot + 34*i
		fmt.Fprintf(&b, `<path d="M20 %d H70" %s/>`+"\n", y-5, stroke)
		fmt.Fprintf(&b, `<text x="84" y="%d" fill="#161616">%s: %.0f %% of the hues clean, %.0f %% softened or better</text>`+"\n", y, text(s.Name), 100*s.CleanCoverage, 100*s.SoftCoverage)
	}
	b.WriteString("</svg>\n")
	return b.Bytes()
}
