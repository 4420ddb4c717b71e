package files

import (
	"bytes"
	"encoding/csv"
	"encoding/xml"
	"fmt"
	"math"
	"strconv"
	"strings"

	"gyrophane/core/certainty"
	"gyrophane/core/paint"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
)

// ComparisonCSV is the figures of systems side by side as a table: a row a
// system, then how far each reaches in every bin of wheel hue; deviations are those that tubes as they differ make.
func ComparisonCSV(systems []reach.Compared, doubts certainty.Doubts) []byte {
	var all []wheel.System
	for _, s := range systems {
		all = append(all, s.System)
	}
	sure := certainty.OfSystems(all, doubts)
	header := []string{"system", "kind", "paints", "clean_coverage", "soft_coverage", "vivid_coverage", "mean_brightness", "widest_gap_degrees", "gap_from", "gap_to", "darkest_l", "complement_middles_c", "evenness", "jumps", "lamp_de00", "tubes", "price", "cautions", "clean_coverage_deviation", "mean_brightness_deviation"}
	for bin := range reach.Bins {
		header = append(header, fmt.Sprintf("reach_%.1f", reach.Middle(bin)))
	}
	rows := [][]string{header}
	for i, s := range systems {
		var codes, cautions []string
		paints := s.System.Paints()
		for _, p := range paints {
			codes = append(codes, p.Code())
		}
		for _, c := range paint.Cautions(paints) {
			cautions = append(cautions, c.Name)
		}
		gap := s.Reach.WidestGap()
		from, to := gap.Words()
		row := []string{textCell(s.Name), string(s.System.Kind), textCell(strings.Join(codes, " ")), figure(s.Reach.Clean(), 4), figure(s.Reach.Soft(), 4), figure(s.Reach.Vivid(), 4), figure(s.Reach.Mean(), 4), figure(gap.Degrees, 1), from, to,
			figure(s.Dark.Lab.L, 1), figure(s.Middles, 2), figure(s.Evenness, 3), strconv.Itoa(s.Jumps), figure(s.Lamp.DE, 2), strconv.Itoa(len(paints)), optional(s.Price), strings.Join(cautions, "; "), figure(sure.Clean(i), 4), figure(sure.Mean(i), 4)}
		for _, r := range s.Reach {
			row = append(row, figure(r, 4))
		}
		rows = append(rows, row)
	}
	return table(rows)
}

// RecipesCSV is what each system mixes for each wanted colour in a medium, a row
// each.
func RecipesCSV(systems []reach.Named, wanted []reach.Wanted, matches []reach.TargetMatch, in paint.Medium) []byte {
	rows := [][]string{{"wanted", "L", "a", "b", "system", "recipe", "de00", "de00_lamp", "reached", "how"}}
	for n, c := range matches {
		for i, m := range c.Matches {
			lamp := ""
			if d, _, ok := m.UnderLamp(c.Want, in); ok {
				lamp = figure(d, 2)
			}
			rows = append(rows, []string{textCell(wanted[n].Name), figure(c.Want.Lab.L, 3), figure(c.Want.Lab.A, 3), figure(c.Want.Lab.B, 3), textCell(systems[i].Name), m.Parts.String(), figure(m.DE, 2), lamp, yesNo(m.Reached()), textCell(strings.Join(m.Parts.Mixing(), " "))})
		}
	}
	return table(rows)
}

// table is rows as CSV with commas, in UTF-8.
func table(rows [][]string) []byte {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	if err := w.WriteAll(rows); err != nil {
		panic(err) // a buffer takes everything
	}
	return b.Bytes()
}

// figure is a number with so many decimals at most.
func figure(v float64, decimals int) string {
	p := math.Pow(10, float64(decimals))
	return plain(math.Round(v*p) / p)
}

func plain(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

// optional is a number; nothing where there is none.
func optional(v *float64) string {
	if v == nil {
		return ""
	}
	return plain(*v)
}

func yesNo(yes bool) string {
	if yes {
		return "yes"
	}
	return "no"
}

// textCell is a field that no spreadsheet takes for a formula.
func textCell(s string) string {
	return disarm(oneLine(s))
}

// outlineDashes are how the outlines of systems are drawn apart.
var outlineDashes = [reach.MostCompared]string{"", "9 5", "0.1 6", "15 4 2 4"}

// ComparisonSVG draws the reaches of systems over each other, outward brighter
// and yellow on top, with the figures of each below.
func ComparisonSVG(systems []reach.Compared) []byte {
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
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" font-family="sans-serif" font-size="14">`+"\n", width, foot+34*len(systems))
	fmt.Fprintf(&b, `<rect width="100%%" height="100%%" fill="#f7f7f7"/>`+"\n")
	for _, r := range []float64{inner, inner + paint.CleanFrom()*(outer-inner), outer} {
		fmt.Fprintf(&b, `<circle cx="%.0f" cy="%.0f" r="%.1f" fill="none" stroke="#cfcfcf"/>`+"\n", centre, centre, r)
	}
	for _, h := range []struct {
		name string
		hue  float64
	}{{"yellow", 120}, {"orange", 60}, {"red", 0}, {"violet", 300}, {"blue", 240}, {"green", 180}} {
		x, y := at(h.hue, outer+30)
		fmt.Fprintf(&b, `<text x="%.1f" y="%.1f" text-anchor="middle" fill="#161616">%s</text>`+"\n", x, y+5, h.name)
	}
	for i, s := range systems {
		var d strings.Builder
		for bin, r := range s.Reach {
			x, y := at(reach.Middle(bin), inner+r*(outer-inner))
			fmt.Fprintf(&d, "%s%.1f %.1f ", map[bool]string{true: "M", false: "L"}[bin == 0], x, y)
		}
		stroke := fmt.Sprintf(`stroke="#161616" stroke-width="2" stroke-dasharray="%s" stroke-linecap="round"`, outlineDashes[i])
		fmt.Fprintf(&b, `<path d="%sZ" fill="none" %s/>`+"\n", d.String(), stroke)
		y := foot + 34*i
		fmt.Fprintf(&b, `<path d="M20 %d H70" %s/>`+"\n", y-5, stroke)
		fmt.Fprintf(&b, `<text x="84" y="%d" fill="#161616">%s: %.0f %% of the hues clean, %.0f %% vivid, mean brightness %.2f</text>`+"\n", y, text(s.Name), 100*s.Reach.Clean(), 100*s.Reach.Vivid(), s.Reach.Mean())
	}
	b.WriteString("</svg>\n")
	return b.Bytes()
}
