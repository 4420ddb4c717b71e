package certainty

import (
	"fmt"
	"math"
	"runtime"
	"strings"

	"golang.org/x/sync/errgroup"
	"gonum.org/v1/gonum/stat/distuv"

	"gyrophane/core/paint"
	"gyrophane/core/path"
	"gyrophane/core/reach"
	"gyrophane/core/wheel"
)

// Systems is how sure the reaches of some systems are, and what tells them from each other: what two share cancels.
type Systems struct {
	paints []*paint.Paint
	joint  *Joint
	slopes []slopesOf // of each system
}

// slopesOf are how figures of a system change with the unknowns of all paints, in the units of Doubt.
type slopesOf struct {
	mean, clean []float64
	reach       [reach.Bins][]float64
}

// leastClean is the least deviation of a clean coverage: it is counted in bins.
const leastClean = 0.02

// OfSystems follows the paths of some systems with each of their paints moved by a deviation of its shade and of its cleanness
// either way; its strength does not change what is reached. A path that two systems share is followed once.
func OfSystems(systems []wheel.System, doubt Doubts) *Systems {
	all := waysOf(systems)
	out := &Systems{paints: all.paints, joint: Together(all.paints, doubt)}
	all.follow(doubt)
	for _, ways := range all.ofSystem {
		out.slopes = append(out.slopes, all.slopes(ways, doubt, len(out.joint.Off)))
	}
	return out
}

// systemWays are the ways of some systems, each couple of paints once, and what they reach.
type systemWays struct {
	paints   []*paint.Paint
	couples  [][2]int               // of paints, by their places
	ofSystem [][]int                // the couples of each system
	still    []reach.Reach          // of each couple, of the tubes as they most likely are
	moved    [][2][2][2]reach.Reach // of each couple: with which end, in which unknown, which way moved
}

func waysOf(systems []wheel.System) *systemWays {
	out := &systemWays{}
	at, place := map[string]int{}, map[[2]int]int{}
	for _, s := range systems {
		for _, p := range s.Paints() {
			if _, there := at[p.ID]; !there {
				at[p.ID], out.paints = len(out.paints), append(out.paints, p)
			}
		}
		var ways []int
		for _, c := range s.Allowed() {
			couple := [2]int{at[c.A.ID], at[c.B.ID]}
			n, there := place[couple]
			if !there {
				n = len(out.couples)
				place[couple], out.couples = n, append(out.couples, couple)
			}
			ways = append(ways, n)
		}
		out.ofSystem = append(out.ofSystem, ways)
	}
	return out
}

// The unknowns that change what is reached: shade and cleanness, as places among those of a tube.
var reaching = [2]int{1, 2}

func (d Doubt) of(unknown int) float64 {
	return [perTube]float64{d.Strength, d.Shade, d.Cleanness}[unknown]
}

// follow finds what every couple reaches, and reaches with either of its tubes moved.
func (w *systemWays) follow(doubt Doubts) {
	base := make([]*paint.Paint, len(w.paints))
	tubes := make([][2][2]*paint.Paint, len(w.paints))
	for k, p := range w.paints {
		d := doubt(p)
		base[k] = d.likeliest(p)
		for u, unknown := range reaching {
			for n, sign := range []float64{-1, 1} {
				tubes[k][u][n] = moved(base[k], unknown, sign*d.of(unknown))
			}
		}
	}
	w.still = make([]reach.Reach, len(w.couples))
	w.moved = make([][2][2][2]reach.Reach, len(w.couples))
	var working errgroup.Group
	working.SetLimit(runtime.GOMAXPROCS(0))
	for n, c := range w.couples {
		working.Go(func() error {
			w.still[n] = reach.OfPath(path.New(base[c[0]], base[c[1]]))
			for end, k := range c {
				for u := range reaching {
					for way := range 2 {
						pair := [2]*paint.Paint{base[c[0]], base[c[1]]}
						pair[end] = tubes[k][u][way]
						w.moved[n][end][u][way] = reach.OfPath(path.New(pair[0], pair[1]))
					}
				}
			}
			return nil
		})
	}
	if err := working.Wait(); err != nil {
		panic(err) // none fails
	}
}

// slopes are those of a system by its ways, over so many unknowns of all paints.
func (w *systemWays) slopes(ways []int, doubt Doubts, unknowns int) slopesOf {
	out := slopesOf{mean: make([]float64, unknowns), clean: make([]float64, unknowns)}
	for bin := range out.reach {
		out.reach[bin] = make([]float64, unknowns)
	}
	for k, p := range w.paints {
		d := doubt(p)
		for u, unknown := range reaching {
			by := d.of(unknown)
			var r [2]reach.Reach
			touched := false
			for way := range 2 {
				for _, n := range ways {
					one := w.still[n]
					for end := range 2 {
						if w.couples[n][end] == k {
							one, touched = w.moved[n][end][u][way], true
						}
					}
					r[way] = r[way].With(one)
				}
			}
			if !touched || by == 0 {
				continue
			}
			row := perTube*k + unknown
			out.mean[row] = (r[1].Mean() - r[0].Mean()) / (2 * by)
			out.clean[row] = (r[1].Clean() - r[0].Clean()) / (2 * by)
			for bin := range out.reach {
				out.reach[bin][row] = (r[1][bin] - r[0][bin]) / (2 * by)
			}
		}
	}
	return out
}

// Mean is the standard deviation of a system's mean brightness, and Clean that of its clean coverage.
func (s *Systems) Mean(i int) float64  { return s.joint.deviation(s.slopes[i].mean) }
func (s *Systems) Clean(i int) float64 { return max(leastClean, s.joint.deviation(s.slopes[i].clean)) }

// Reach is the standard deviation of a system's reach in each bin.
func (s *Systems) Reach(i int) (out [reach.Bins]float64) {
	for bin := range out {
		out[bin] = s.joint.deviation(s.slopes[i].reach[bin])
	}
	return out
}

// Call is by how much one system has more of something than another, and how sure it is that it has more.
type Call struct {
	By, Deviation float64
	Sure          Sureness
}

func callOf(by, deviation float64) Call {
	out := Call{by, deviation, EitherWay}
	switch right := distuv.UnitNormal.CDF(math.Abs(by) / max(deviation, 1e-9)); {
	case right >= sureFrom:
		out.Sure = Sure
	case right >= likelyFrom:
		out.Sure = Likely
	}
	return out
}

func less(a, b []float64) []float64 {
	out := make([]float64, len(a))
	for i := range a {
		out[i] = a[i] - b[i]
	}
	return out
}

// MeanBetween is by how much the mean brightness of one of the systems is above another's, and CleanBetween by how much its
// clean coverage is.
func (s *Systems) MeanBetween(i, k int, by float64) Call {
	return callOf(by, s.joint.deviation(less(s.slopes[i].mean, s.slopes[k].mean)))
}
func (s *Systems) CleanBetween(i, k int, by float64) Call {
	return callOf(by, max(leastClean, s.joint.deviation(less(s.slopes[i].clean, s.slopes[k].clean))))
}

// Alike says that two of the systems cannot be told from each other, neither in how much they reach cleanly nor in how brightly.
func (s *Systems) Alike(i, k int, first, second reach.Reach) bool {
	return s.CleanBetween(i, k, first.Clean()-second.Clean()).Sure == EitherWay && s.MeanBetween(i, k, first.Mean()-second.Mean()).Sure == EitherWay
}

// OfRun is by how much one of the systems reaches farther than another in a stretch of the circle.
func (s *Systems) OfRun(i, k int, first, second reach.Reach, run reach.HueRange) Call {
	sum := make([]float64, len(s.joint.Off))
	by, n := 0.0, 0.0
	for bin := run.From; bin <= run.To; bin++ {
		at := bin % reach.Bins
		by, n = by+first[at]-second[at], n+1
		for u, x := range less(s.slopes[i].reach[at], s.slopes[k].reach[at]) {
			sum[u] += x
		}
	}
	for u := range sum {
		sum[u] /= n
	}
	return callOf(by/n, s.joint.deviation(sum))
}

// Difference is that of two systems, without what is too close to call; Close is that.
type Difference struct {
	reach.Difference
	Close []reach.HueRange
}

// Difference parts that of two systems into what can be said and what is too close to call.
func (s *Systems) Difference(i, k int, first, second reach.Reach) (out Difference) {
	d := reach.Compare(first, second)
	kept := func(runs []reach.HueRange) (sure []reach.HueRange) {
		for _, run := range runs {
			if s.OfRun(i, k, first, second, run).Sure == EitherWay {
				out.Close = append(out.Close, run)
			} else {
				sure = append(sure, run)
			}
		}
		return sure
	}
	out.First, out.Second = kept(d.First), kept(d.Second)
	cleaner := len(out.Close)
	out.FirstBrighter, out.SecondBrighter = kept(d.FirstBrighter), kept(d.SecondBrighter)
	if !out.Same() {
		out.Close = out.Close[:cleaner] // what is brighter is spoken of where nothing is cleaner
	}
	return out
}

// Sentence is the difference in a sentence, with the names of both, and where it is too close to call.
func (t *Difference) Sentence(first, second string) string {
	if len(t.Close) == 0 {
		return t.Difference.Sentence(first, second)
	}
	close := "too close to call " + reach.Runs(t.Close)
	if t.Same() && len(t.FirstBrighter)+len(t.SecondBrighter) == 0 {
		return fmt.Sprintf("%s and %s: %s.", first, second, close)
	}
	return strings.TrimSuffix(t.Difference.Sentence(first, second), ".") + "; " + close + "."
}

// Decide says in a sentence which of two systems or more reaches furthest; where tubes may turn that round, that it is too close
// to call.
func (s *Systems) Decide(of []reach.Compared) string {
	if len(of) < 2 {
		return reach.Decide(of)
	}
	best, next := reach.Leading(of)
	a, b := of[best], of[next]
	clean := s.CleanBetween(best, next, a.Reach.Clean()-b.Reach.Clean())
	mean := s.MeanBetween(best, next, a.Reach.Mean()-b.Reach.Mean())
	if clean.Sure != EitherWay || mean.Sure != EitherWay {
		return reach.Decide(of)
	}
	says := fmt.Sprintf("%s and %s are too close to call: clean at %.0f %% and %.0f %% of the hues, and tubes of a kind differ by more than that", a.Name, b.Name, 100*a.Reach.Clean(), 100*b.Reach.Clean())
	if n, m := len(a.System.Paints()), len(b.System.Paints()); n != m {
		says += fmt.Sprintf("; %s takes %d tubes, %s %d", a.Name, n, b.Name, m)
	}
	return says + "."
}
