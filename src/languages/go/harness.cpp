// Harnesses in Go: a test in the package in question.
#include "languages/harness.h"

#include <filesystem>
#include <set>

#include "base/text.h"
#include "languages/go/go.h"

namespace elmcart {
namespace {

constexpr std::string_view kSupport = R"(
import (
	"bufio"
	"fmt"
	"os"
	"reflect"
	"strconv"
	"sync"
	"time"
)

type elmcartEvent struct {
	kind byte
	by   int
	when time.Duration
	what string
}

var elmcartProbe = struct {
	sync.Mutex
	begun  time.Time
	events []elmcartEvent
	next   int
}{begun: time.Now()}


func elmcartNote(by int, kind byte, what string) {
	elmcartProbe.Lock()
	defer elmcartProbe.Unlock()
	if len(elmcartProbe.events) < 1<<14 {
		elmcartProbe.events = append(elmcartProbe.events, elmcartEvent{kind: kind, by: by, when: time.Since(elmcartProbe.begun), what: what})
	}
}

func elmcartNumber(name string, otherwise int) int {
	if n, err := strconv.Atoi(os.Getenv(name)); err == nil {
		return n
	}
	return otherwise
}

func elmcartGap[T any](value T) T {
	elmcartProbe.Lock()
	elmcartProbe.next++
	by := elmcartProbe.next
	elmcartProbe.Unlock()
	elmcartNote(by, 'i', "0")
	time.Sleep(time.Duration(elmcartNumber("ELMCART_PROBE_GAP", 0)) * time.Millisecond)
	what := "0"
	switch reflect.ValueOf(&value).Elem().Kind() {
	case reflect.Int, reflect.Int32, reflect.Int64, reflect.Uint, reflect.Uint32, reflect.Uint64:
		what = fmt.Sprint(value)
	}
	elmcartNote(by, 'o', what)
	return value
}

func elmcartMade() { elmcartNote(1000, 'm', "0") }

func elmcartIdentity(got interface{}) string {
	v := reflect.ValueOf(got)
	switch v.Kind() {
	case reflect.Ptr, reflect.Map, reflect.Chan:
		return fmt.Sprint(v.Pointer())
	}
	return "0"
}

func elmcartRace(call func() interface{}) {
	count := elmcartNumber("ELMCART_PROBE_THREADS", 4)
	var ready, done sync.WaitGroup
	ready.Add(count)
	done.Add(count)
	for i := 1; i <= count; i++ {
		go func(own int) {
			defer done.Done()
			defer func() {
				if r := recover(); r != nil {
					elmcartNote(own, 'x', fmt.Sprint(r))
				}
			}()
			ready.Done()
			ready.Wait()
			elmcartNote(own, 'c', "0")
			elmcartNote(own, 'g', elmcartIdentity(call()))
		}(i)
	}
	done.Wait()
	out := os.Stdout
	if path := os.Getenv("ELMCART_PROBE_EVENTS"); path != "" {
		if file, err := os.Create(path); err == nil {
			out = file
		}
	}
	lines := bufio.NewWriter(out)
	for _, e := range elmcartProbe.events {
		fmt.Fprintf(lines, "%c %d %d %s\n", e.kind, e.by, int64(e.when), e.what)
	}
	lines.Flush()
	os.Exit(0)
}
)";

constexpr std::string_view kCost = R"(
import (
	"fmt"
	"os"
	"strconv"
	"sync"
	"sync/atomic"
	"testing"
	"time"
	"unsafe"
)

type elmcartDesk struct{ value int }

var (
	elmcartOnceDesk   *elmcartDesk
	elmcartOnce       sync.Once
	elmcartAtomicDesk unsafe.Pointer
	elmcartLockedDesk *elmcartDesk
	elmcartMutex      sync.Mutex
	elmcartEagerDesk  = &elmcartDesk{}
	elmcartSink       interface{}
)

//go:noinline
func elmcartByOnce() *elmcartDesk {
	elmcartOnce.Do(func() { elmcartOnceDesk = &elmcartDesk{} })
	return elmcartOnceDesk
}

//go:noinline
func elmcartByAtomic() *elmcartDesk {
	desk := (*elmcartDesk)(atomic.LoadPointer(&elmcartAtomicDesk))
	if desk == nil {
		elmcartMutex.Lock()
		defer elmcartMutex.Unlock()
		desk = (*elmcartDesk)(atomic.LoadPointer(&elmcartAtomicDesk))
		if desk == nil {
			desk = &elmcartDesk{}
			atomic.StorePointer(&elmcartAtomicDesk, unsafe.Pointer(desk))
		}
	}
	return desk
}

//go:noinline
func elmcartByLock() *elmcartDesk {
	elmcartMutex.Lock()
	defer elmcartMutex.Unlock()
	if elmcartLockedDesk == nil {
		elmcartLockedDesk = &elmcartDesk{}
	}
	return elmcartLockedDesk
}

//go:noinline
func elmcartEager() *elmcartDesk { return elmcartEagerDesk }

type elmcartClerk struct{ desk *elmcartDesk }

//go:noinline
func (c *elmcartClerk) field() *elmcartDesk { return c.desk }

var elmcartOneClerk = &elmcartClerk{elmcartEagerDesk}

func elmcartNumber(name string, otherwise int) int {
	if n, err := strconv.Atoi(os.Getenv(name)); err == nil {
		return n
	}
	return otherwise
}

func elmcartMeasure(out *os.File, form string, loop func(count int), rounds, most int) {
	count := 1000
	for {
		begun := time.Now()
		loop(count)
		if time.Since(begun) > 4*time.Millisecond || count > 1<<26 {
			break
		}
		count *= 2
	}
	for threads := 1; threads <= most; threads *= 2 {
		for round := 0; round < rounds; round++ {
			var ready, done sync.WaitGroup
			ready.Add(threads)
			done.Add(threads)
			spent := make([]time.Duration, threads)
			for t := 0; t < threads; t++ {
				go func(own int) {
					defer done.Done()
					ready.Done()
					ready.Wait()
					begun := time.Now()
					loop(count)
					spent[own] = time.Since(begun)
				}(t)
			}
			done.Wait()
			sum := 0.0
			for _, each := range spent {
				sum += float64(each)
			}
			fmt.Fprintf(out, "t %d %.4f %s\n", threads, sum/float64(threads)/float64(count), form)
		}
	}
}

func TestElmcartProbe(t *testing.T) {
	rounds, most := elmcartNumber("ELMCART_PROBE_ROUNDS", 11), elmcartNumber("ELMCART_PROBE_THREADS", 4)
	out := os.Stdout
	if path := os.Getenv("ELMCART_PROBE_EVENTS"); path != "" {
		if file, err := os.Create(path); err == nil {
			out = file
		}
	}
BEFORE	begun := time.Now()
	elmcartSink = CALL
	fmt.Fprintf(out, "f 1 %d as it is\n", int64(time.Since(begun)))
	elmcartMeasure(out, "as it is", func(count int) {
		kept := CALL
		for i := 0; i < count; i++ {
			kept = CALL
		}
		if count < 0 {
			elmcartSink = kept
		}
	}, rounds, most)
	for _, each := range []struct {
		form   string
		access func() *elmcartDesk
	}{{"once", elmcartByOnce}, {"double check", elmcartByAtomic}, {"lock at each access", elmcartByLock}, {"eager", elmcartEager}, {"injected field", elmcartOneClerk.field}} {
		access := each.access
		elmcartMeasure(out, each.form, func(count int) {
			for i := 0; i < count; i++ {
				access()
			}
		}, rounds, most)
	}
	out.Close()
	os.Exit(0)
}
)";

// Nothing is told the end of a process: what is counted lies in a mapped file, three numbers a place.
constexpr std::string_view kWatch = R"(
import (
	"fmt"
	"os"
	"sync"
	"sync/atomic"
	"syscall"
	"time"
	"unsafe"
)

const elmcartSites = SITES

var elmcartOnce sync.Once
var elmcartMapped *[elmcartSites][3]int64 = &[elmcartSites][3]int64{}
var elmcartMades int32

func elmcartMap() {
	folder := os.Getenv("ELMCART_PROBE_EVENTS")
	if folder == "" {
		return
	}
	file, err := os.OpenFile(fmt.Sprintf("%s/%d.counts", folder, os.Getpid()), os.O_RDWR|os.O_CREATE, 0o644)
	if err != nil {
		return
	}
	defer file.Close()
	size := int(unsafe.Sizeof(*elmcartMapped))
	if file.Truncate(int64(size)) != nil {
		return
	}
	if data, err := syscall.Mmap(int(file.Fd()), 0, size, syscall.PROT_READ|syscall.PROT_WRITE, syscall.MAP_SHARED); err == nil {
		elmcartMapped = (*[elmcartSites][3]int64)(unsafe.Pointer(&data[0]))
	}
}

// ElmcartPass hands on what was fetched: calls in arguments are made from the left, so the place is noted before.
func ElmcartPass[T any](site int, value T) T { return value }

// ElmcartAt counts that a place was passed.
func ElmcartAt(site int) int {
	elmcartOnce.Do(elmcartMap)
	now := time.Now().UnixNano()
	if atomic.AddInt64(&elmcartMapped[site][0], 1) == 1 {
		atomic.StoreInt64(&elmcartMapped[site][1], now)
	}
	atomic.StoreInt64(&elmcartMapped[site][2], now)
	return site
}

// ElmcartMade notes that one was made.
func ElmcartMade[T any](value T) T {
	folder := os.Getenv("ELMCART_PROBE_EVENTS")
	if folder == "" || atomic.AddInt32(&elmcartMades, 1) > 1<<14 {
		return value
	}
	if file, err := os.OpenFile(fmt.Sprintf("%s/%d", folder, os.Getpid()), os.O_WRONLY|os.O_CREATE|os.O_APPEND, 0o644); err == nil {
		fmt.Fprintf(file, "m 0 %d 0\n", time.Now().UnixNano())
		file.Close()
	}
	return value
}
)";

class GoHarness final : public HarnessWriter {
 public:
  using HarnessWriter::HarnessWriter;

  Result<Harness> write(const ProbePlan& plan) override {
    Harness out;
    if (plan.scenario == ProbeScenario::Ended) return Error{plan.file, "an object that is still listed is not freed here: nothing can be seen by running"};
    widen(plan, out.edits);
    for (Spot constructor : plan.made) atBegin(constructor, "elmcartMade();", out.edits);
    std::string missing, before, call = callText(plan, missing, before);
    out.missing = missing;
    size_t cut = plan.file.rfind('/');
    std::string folder = cut == std::string::npos ? "" : plan.file.substr(0, cut + 1), package;
    package = packageOf(plan.call.at);
    out.shown = folder + "elmcart_probe_test.go";
    out.files.push_back({folder + "elmcart_probe.go", "package " + package + "\n" + std::string(kSupport)});
    out.files.push_back({out.shown, "package " + package + "\n\nimport \"testing\"\n\nfunc TestElmcartProbe(t *testing.T) {\n" + before + "\telmcartRace(func() interface{} {\n\t\t" + (plan.call.returns ? "return " + call : call + "\n\t\treturn nil") + "\n\t})\n}\n"});
    build(plan, folder, out);
    return out;
  }

  Result<Harness> cost(const ProbePlan& plan) override {
    Harness out;
    std::string missing, before, call = callText(plan, missing, before);
    out.missing = missing;
    size_t cut = plan.file.rfind('/');
    std::string folder = cut == std::string::npos ? "" : plan.file.substr(0, cut + 1);
    out.shown = folder + "elmcart_probe_test.go";
    out.files.push_back({out.shown, "package " + packageOf(plan.call.at) + "\n" + replaced(replaced(std::string(kCost), "CALL", call), "BEFORE", before)});
    build(plan, folder, out);
    return out;
  }

  Result<Harness> watch(const WatchPlan& plan) override {
    Harness out;
    if (!plan.home.known()) return Error{"", "where it is declared is not known"};
    auto folderOf = [](const std::string& path) { return path.rfind('/') == std::string::npos ? std::string() : path.substr(0, path.rfind('/') + 1); };
    std::string folder = folderOf(plan.home.file->path), package = packageOf(plan.home);
    for (const WatchSite& site : plan.sites) {
      // From another package by the name under which the access gets at it.
      std::string prefix, written(text(*site.at.file).substr(site.at->span.begin, site.at->span.size()));
      bool same = folderOf(site.at.file->path) == folder && packageOf(site.at) == package;
      if (size_t dot = written.find('.'); !same) prefix = dot == std::string::npos ? "" : written.substr(0, dot + 1);
      if (!same && (prefix.empty() || prefix.find_first_of("(&{") != std::string::npos)) continue;
      // A variable by its address, so that what it holds is not copied.
      bool variable = !site.makes && site.at->kind != Kind::Call;
      // &tideTable{}: what is made is its address.
      uint32_t begin = site.at->span.begin - (site.makes && site.at->span.begin > 0 && text(*site.at.file)[site.at->span.begin - 1] == '&');
      if (site.makes) out.edits.push_back({site.at.file->path, {begin, begin}, prefix + "ElmcartMade("}), out.edits.push_back({site.at.file->path, {site.at->span.end, site.at->span.end}, ")"});
      else around(site.at, (variable ? "(*" : "") + prefix + "ElmcartPass(" + prefix + "ElmcartAt(" + std::to_string(site.number) + "), " + (variable ? "&" : ""), variable ? "))" : ")", out.edits);
    }
    out.files.push_back({folder + "elmcart_probe_watch.go", "package " + package + "\n" + replaced(std::string(kWatch), "SITES", std::to_string(plan.sites.size() + 1))});
    // Type parameters are of Go 1.18.
    out.build.push_back("for m in $(find . -name go.mod); do (cd $(dirname $m) && go mod edit -go=1.18); done");
    return out;
  }

 protected:
  std::string gapCall() const override { return "elmcartGap("; }
  std::string madeUp(const ProbeParameter& parameter) const override {
    static const std::set<std::string_view> numbers = {"int", "int8", "int16", "int32", "int64", "uint", "uint8", "uint16", "uint32", "uint64", "byte", "rune", "float32", "float64"};
    if (parameter.isArray) return "nil";
    if (parameter.type == "string") return "\"elmcart\"";
    if (parameter.type == "bool") return "true";
    if (numbers.contains(parameter.type)) return "1";
    return parameter.mayBeNull || parameter.type == "error" ? "nil" : "";
  }

  std::string nameOf(const ProbePlan&, const ProbeFunction& function) const override { return function.name; }
  std::string slotName(const ProbePlan& plan) const override { return plain(plan.slot); }
  std::string newObject(const ProbePlan&, const ProbeFunction& function) const override { return "&" + plain(function.ownerName) + "{}"; }
  // What a variable holds is not copied.
  std::string keepObject(const ProbeFunction&, const std::string& object) const override { return object.starts_with('&') ? "\t" + std::string(kObject) + " := " + object + "\n" : ""; }

 private:
  static void build(const ProbePlan& plan, const std::string& folder, Harness& out) {
    out.needs = "go";
    out.package = "golang-go";
    bool module = false;
    for (std::string up = folder;;) {
      module |= std::filesystem::exists(plan.root + "/" + up + "go.mod");
      if (up.empty()) break;
      size_t slash = up.rfind('/', up.size() - 2);
      up = slash == std::string::npos ? "" : up.substr(0, slash + 1);
    }
    if (!module) out.files.push_back({folder + "go.mod", "module elmcartprobe\n\ngo 1.18\n"});
    std::string in = folder.empty() ? "" : "cd \"" + folder + "\" && ";
    // Type parameters are of Go 1.18.
    if (module) out.build.push_back(in + "go mod edit -go=1.18");
    out.build.push_back(in + "go test -vet=off -c -o elmcart_probe.test .");
    out.run = in + "./elmcart_probe.test -test.run '^TestElmcartProbe$'";
  }
  std::string packageOf(Spot spot) {
    std::string package = "main";
    const SyntaxTree& syntax = tree(spot);
    SyntaxTree::walk(syntax.root(), [&](TSNode node) {
      if (SyntaxTree::is(node, "package_identifier")) package = std::string(syntax.text(node));
      return SyntaxTree::isOneOf(node, {"source_file", "package_clause"});
    });
    return package;
  }
};

}  // namespace

std::unique_ptr<HarnessWriter> goHarness(WriterFiles& files) { return std::make_unique<GoHarness>(files); }

}  // namespace elmcart
