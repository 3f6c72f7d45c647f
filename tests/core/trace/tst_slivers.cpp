// What is too thin to be seen: slivers between borders of inks, and hooks at their ends.

#include <QTest>
#include <numbers>
#include <random>

#include "core/colour/reduce.h"
#include "core/drawing/drawing.h"
#include "core/geometry/path_place.h"
#include "core/mend/find/inspect.h"
#include "core/trace/ink_trace.h"
#include "core/trace/inks/cracks.h"
#include "core/trace/inks/ink_outlines.h"
#include "core/trace/inks/lone_inks.h"
#include "core/trace/inks/slivers.h"
#include "core/trace/outline/without_backsteps.h"
#include "support/artwork.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

constexpr int kSide = 160;
const std::vector<colour::Rgb> kColours{{255, 255, 255}, {23, 41, 84}, {194, 35, 40}, {245, 186, 33}};

Point spot(double x, double y) { return {x, y}; }
Segment to(double x, double y) { return Segment::line({x, y}); }

/// Ink 2 between inks 1 and 3, no wider than `wide` for 2 px from the junction at (0, 0) on, then ever wider.
trace::inks::InkBorders wedge(double wide) {
  trace::inks::InkBorders borders;
  borders.junctions = {{0, 0}, {20, 5}, {20, -5}, {-10, 0}};
  borders.borders = {{{{0, 0}, {to(2, wide), to(20, 5)}, false}, 1, 2, 0, 1, 0},
                     {{{20, -5}, {to(0, 0)}, false}, 3, 2, 2, 0, 1},
                     {{{-10, 0}, {to(0, 0)}, false}, 1, 3, 3, 0, 2}};
  borders.borders[1].path = {{20, -5}, {to(2, 0), to(0, 0)}, false};
  return borders;
}

}  // namespace

class TestSlivers : public QObject {
  Q_OBJECT

 private slots:
  void aJunctionIsWhereBordersPart() {
    std::vector<std::size_t> moved;
    const std::vector<bool> none(4, false);
    const auto parted = trace::inks::withoutSlivers(wedge(0.2), none, moved);
    QVERIFY(moved == std::vector<std::size_t>{0});
    const Point at = parted.junctions[0];
    QVERIFY2(distance(at, {2, 0.1}) < 0.2, qPrintable(QString("%1, %2").arg(at.x).arg(at.y)));
    QVERIFY(parted.borders[0].path.start == at && endOf(parted.borders[1].path) == at);
    QVERIFY(endOf(parted.borders[2].path) == at && parted.borders[2].path.start == spot(-10, 0));
    QCOMPARE(parted.borders[0].path.segments.size(), 1U);
    QVERIFY(nearestOn(parted.borders[2].path, {0, 0}).off < 1e-9);

    moved.clear();
    QVERIFY(trace::inks::withoutSlivers(wedge(1.2), none, moved).junctions[0] == spot(0, 0));
    QVERIFY(trace::inks::withoutSlivers(wedge(0.2), {true, true, true, true}, moved).junctions[0] == spot(0, 0));
    QVERIFY(moved.empty());
  }

  void hooksAtTheEndsGo() {
    const Path atTheEnd{{0, 0}, {to(5, 0), to(4.2, 0.1)}, false};
    const Path ended = trace::outline::withoutHooks(atTheEnd, 1.1);
    QVERIFY(ended.segments.size() == 1 && endOf(ended) == spot(4.2, 0.1));
    const Path begun = trace::outline::withoutHooks(reversed(atTheEnd), 1.1);
    QVERIFY(begun.segments.size() == 1 && begun.start == spot(4.2, 0.1) && endOf(begun) == spot(0, 0));
    QVERIFY(trace::outline::withoutHooks(atTheEnd, 0.5) == atTheEnd);
    const Path aCorner{{0, 0}, {to(5, 0), to(5, 0.8)}, false};
    QVERIFY(trace::outline::withoutHooks(aCorner, 1.1) == aCorner);
  }

  void anInkOfNoAreaIsNone() {
    trace::inks::InkBorders borders;
    borders.junctions = {{0, 0}, {10, 0}};
    borders.borders = {{{{0, 0}, {to(10, 0)}, false}, 1, 2, 0, 1, 0}, {{{10, 0}, {to(0, 0)}, false}, 1, 3, 1, 0, 1}};
    QVERIFY(trace::inks::outlinesRound(borders, {false, true}).empty());
  }

  /// Of an ink that is traced alone no outline is a polygon of places a part of a pixel apart.
  void whatIsTracedAloneIsFitted() {
    const picture::Picture picture = artwork(kSide, kSide, kColours, [](double x, double y) -> std::size_t {
      if (std::hypot(x - 80.3, y - 80.1) < 30) return 1;
      return x < 80.3 ? 2 : y < 60.2 ? 3 : 0;
    });
    const colour::InkMap map = colour::reduced(picture, std::nullopt);
    const trace::inks::LoneInks lone(trace::inks::cracksOf(*map.labels), *picture.bgr, map, {}, {});
    QVERIFY(lone.inks().size() > 1);
    for (const auto& ink : lone.inks()) {
      for (const Path& outline : ink.outlines)
        QVERIFY(pathLength(outline) > 0.5 * static_cast<double>(outline.segments.size()));
    }
  }

  /// Own inspection finds nothing in needles of inks that lie over each other, at the size of the picture.
  void needlesHaveNoFaults() {
    std::mt19937 random(11);
    std::uniform_real_distribution<double> place(30, 130), turn(0, 6.3), half(0.03, 0.3);
    for (int round = 0; round < 2; ++round) {
      std::array<Point, 7> tips;
      std::array<double, 7> turns{}, halves{};
      for (std::size_t k = 0; k < tips.size(); ++k) {
        tips[k] = {place(random), place(random)};
        turns[k] = turn(random);
        halves[k] = half(random);
      }
      const picture::Picture picture = artwork(kSide, kSide, kColours, [&](double x, double y) -> std::size_t {
        std::size_t ink = 0;
        for (std::size_t k = 0; k < tips.size(); ++k) {
          const Point off = Point{x, y} - tips[k];
          const double away = std::remainder(std::atan2(off.y, off.x) - turns[k], 2 * std::numbers::pi);
          if (std::abs(away) < halves[k] && length(off) < 60) ink = 1 + k % 3;
        }
        return ink;
      });
      const colour::InkMap map = colour::reduced(picture, std::nullopt);
      const trace::Tracing tracing = trace::traceInks(picture, map, trace::InkLayout::CutOut, {});
      std::vector<Path> mm;
      for (const Path& path : tracing.outlines) mm.push_back(scaled(path, 25.4 / 96));
      const auto findings = mend::inspect(makeDrawing(std::move(mm)), {});
      for (const mend::Finding& f : findings) {
        const bool isFault = f.kind == mend::FindingKind::Loop || f.kind == mend::FindingKind::Spike ||
                             f.kind == mend::FindingKind::CoincidentNode || f.kind == mend::FindingKind::SelfCrossing;
        QVERIFY2(!isFault, qPrintable(QString("round %1 at %2, %3: %4")
                                          .arg(round)
                                          .arg(f.at.x * 96 / 25.4)
                                          .arg(f.at.y * 96 / 25.4)
                                          .arg(QString::fromStdString(f.words))));
      }
    }
  }
};

RIM_TEST(TestSlivers)
#include "tst_slivers.moc"
