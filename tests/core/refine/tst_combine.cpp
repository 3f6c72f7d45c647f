#include <QtTest>
#include <numbers>
#include <random>

#include "core/geometry/path_place.h"
#include "core/geometry/point_in_polygon.h"
#include "core/geometry/segment.h"
#include "core/mend/find/inspect.h"
#include "core/refine/combine/areas.h"
#include "core/refine/combine/offset.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

double areaOf(const Drawing& drawing) {
  double sum = 0;
  for (const Outline& outline : drawing.outlines) sum += outline.path().closed ? signedArea(outline.path()) : 0;
  return sum;
}

/// Whether a place lies inside the drawing, even-odd.
bool has(const Drawing& drawing, Point p) {
  bool inside = false;
  for (const Outline& outline : drawing.outlines) inside ^= PointInPolygon(outline.path()).has(p);
  return inside;
}

Path rectangle(double x, double y, double w, double h) {
  return polygonThrough({{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}});
}

/// A star-shaped outline of lines, arcs and cubics about a place.
Path blob(std::mt19937& random, Point centre, double size) {
  std::uniform_real_distribution<double> share(0.5, 1);
  std::uniform_int_distribution<int> count(3, 8);
  const int n = count(random);
  std::vector<Point> corners;
  for (int i = 0; i < n; ++i) {
    const double angle = 2 * std::numbers::pi * i / n;
    corners.push_back(centre + Point{std::cos(angle), std::sin(angle)} * (size * share(random)));
  }
  Path path{corners[0], {}, true};
  for (int i = 1; i <= n; ++i) {
    const Point from = corners[static_cast<std::size_t>(i - 1)];
    const Point to = corners[static_cast<std::size_t>(i % n)];
    const Point out = leftNormal(to - from) * -0.15;
    switch (random() % 3) {
      case 0:
        path.segments.push_back(Segment::line(to));
        break;
      case 1:
        path.segments.push_back(Segment::arc(to, 0.2));
        break;
      default:
        path.segments.push_back(Segment::cubic(lerp(from, to, 0.3) + out, lerp(from, to, 0.7) + out, to));
    }
  }
  return path;
}

Drawing blobs(std::mt19937& random, int count) {
  std::uniform_real_distribution<double> place(0, 40);
  std::vector<Path> paths;
  for (int i = 0; i < count; ++i) paths.push_back(blob(random, {place(random), place(random)}, 12));
  return refine::united(makeDrawing(std::move(paths)));
}

QString faultsOf(const Drawing& drawing) {
  QString text;
  mend::MendSettings settings;
  settings.speckMm = 0;
  settings.doubleMm = 0.0005;  // lines that only run beside each other cross nothing
  for (const mend::Finding& f : mend::inspect(drawing, settings)) {
    if (f.kind == mend::FindingKind::Crossing || f.kind == mend::FindingKind::SelfCrossing ||
        f.kind == mend::FindingKind::OpenEnd || f.kind == mend::FindingKind::Loop)
      text += QString::fromStdString(mend::nameOf(f.kind)) + QString(" at %1 %2; ").arg(f.at.x).arg(f.at.y);
  }
  return text;
}

}  // namespace

class TestCombine : public QObject {
  Q_OBJECT

 private slots:
  void areasAddUp() {
    for (unsigned seed = 1; seed <= 60; ++seed) {
      std::mt19937 random(seed);
      const Drawing a = blobs(random, 1 + static_cast<int>(seed % 4));
      const Drawing b = blobs(random, 1 + static_cast<int>(seed % 3));
      const double both = areaOf(refine::combined(a, b, refine::AreaRule::Intersect));
      const double either = areaOf(refine::combined(a, b, refine::AreaRule::Unite));
      const double first = areaOf(refine::combined(a, b, refine::AreaRule::Subtract));
      const double one = areaOf(refine::combined(a, b, refine::AreaRule::Exclude));
      const QByteArray where = "seed " + QByteArray::number(seed);
      constexpr double kNear = 1e-4;
      QVERIFY2(std::abs(either - (areaOf(a) + areaOf(b) - both)) < kNear, where.constData());
      QVERIFY2(std::abs(first - (areaOf(a) - both)) < kNear, where.constData());
      QVERIFY2(std::abs(one - (either - both)) < kNear, where.constData());
    }
  }

  void placesAreWhereTheRuleSays() {
    for (unsigned seed = 1; seed <= 25; ++seed) {
      std::mt19937 random(seed);
      const Drawing a = blobs(random, 3);
      const Drawing b = blobs(random, 2);
      const Drawing united = refine::combined(a, b, refine::AreaRule::Unite);
      const Drawing without = refine::combined(a, b, refine::AreaRule::Subtract);
      std::uniform_real_distribution<double> place(-10, 50);
      for (int i = 0; i < 150; ++i) {
        const Point p{place(random), place(random)};
        QCOMPARE(has(united, p), has(a, p) || has(b, p));
        QCOMPARE(has(without, p), has(a, p) && !has(b, p));
      }
      QVERIFY2(faultsOf(united).isEmpty() && faultsOf(without).isEmpty(),
               qPrintable(QString("seed %1: %2 / %3").arg(seed).arg(faultsOf(united), faultsOf(without))));
    }
  }

  void kindsOfSegmentsStay() {
    // Two circles, each two half circles: their union is a few arcs of the same two circles.
    const Drawing two = makeDrawing({circlePath({0, 0}, 10), circlePath({12, 0}, 10)});
    const Drawing one = refine::united(two);
    QCOMPARE(one.outlines.size(), 1U);
    QCOMPARE(countsOf(pathsOf(one)).lines, 0U);
    QVERIFY(countsOf(pathsOf(one)).arcs <= 4);
    QCOMPARE(one.outlines[0].id, two.outlines[0].id);
    // The lens of both: 2 r^2 acos(d / 2r) - d/2 sqrt(4 r^2 - d^2) (the formula of two equal circles, from memory).
    const double lens = 2 * 100 * std::acos(0.6) - 6 * std::sqrt(400.0 - 144.0);
    QVERIFY(std::abs(areaOf(one) - (2 * 100 * std::numbers::pi - lens)) < 1e-6);
  }

  void whatOnlyTouchesOrRepeatsIsNoTrouble() {
    const auto count = [](std::vector<Path> paths) {
      const Drawing made = refine::united(makeDrawing(std::move(paths)));
      return std::pair(made.outlines.size(), std::round(areaOf(made) * 1e6) / 1e6);
    };
    using Made = std::pair<std::size_t, double>;
    const Path square = rectangle(0, 0, 10, 10);
    QCOMPARE(count({square, square}), Made(1, 100));
    QCOMPARE(count({square, reversed(square), square}), Made(1, 100));
    QCOMPARE(count({square, rectangle(10, 0, 5, 10)}), Made(1, 150));
    QCOMPARE(count({square, rectangle(10, 2, 5, 5)}), Made(1, 125));
    QCOMPARE(count({square, rectangle(10, 10, 5, 5)}), Made(2, 125));  // a corner is no bridge
    QCOMPARE(count({square, rectangle(2, 2, 5, 5)}), Made(2, 75));     // its hole
    QCOMPARE(count({square, rectangle(0, 2, 5, 5)}), Made(1, 75));     // a hole that touches the border is a bay
    QCOMPARE(count({square, rectangle(2, 2, 5, 5), rectangle(3, 3, 1, 1)}), Made(3, 76));
    QCOMPARE(count({square, rectangle(20, 0, 1, 1)}), Made(2, 101));
    // A bow-tie is two triangles.
    QCOMPARE(count({polygonThrough({{0, 0}, {10, 10}, {10, 0}, {0, 10}})}), Made(2, 50));
    const Drawing nothing = refine::combined(makeDrawing({square}), makeDrawing({square}), refine::AreaRule::Subtract);
    QVERIFY(nothing.outlines.empty());
  }

  void layersAndOpenLinesAreLeftToThemselves() {
    Drawing drawing =
        makeDrawing({rectangle(0, 0, 10, 10), rectangle(5, 5, 10, 10)}, {{"a", 0, 0, 0}, {"b", 0, 0, 0}}, {0, 1});
    add(drawing, {{0, 0}, {Segment::line({50, 50})}, false});
    QVERIFY(refine::united(drawing).outlines == drawing.outlines || refine::united(drawing).outlines.size() == 3);
    QCOMPARE(areaOf(refine::united(drawing)), 200.0);
  }

  /// Steiner's formula for convex outlines: A + P r + pi r^2.
  void offsetsOfConvexOutlinesFollowSteiner() {
    for (const double r : {0.1, 2.0, 7.5}) {
      for (const Path& path : {rectangle(0, 0, 30, 10), circlePath({5, 5}, 8),
                               polygonThrough({{0, 0}, {20, 3}, {8, 15}}), reversed(rectangle(0, 0, 4, 4))}) {
        const Drawing grown = refine::offset(makeDrawing({path}), r, refine::Joins::Round);
        QCOMPARE(grown.outlines.size(), 1U);
        const double wanted = std::abs(signedArea(path)) + pathLength(path) * r + std::numbers::pi * r * r;
        QVERIFY(std::abs(areaOf(grown) - wanted) < 1e-6 * wanted);
        QCOMPARE(countsOf(pathsOf(grown)).curves, 0U);
        // Shrunk back it is what it was.
        QVERIFY(std::abs(areaOf(refine::offset(grown, -r, refine::Joins::Round)) - std::abs(signedArea(path))) < 1e-4);
      }
    }
  }

  void cornersAreFilledAsAsked() {
    const Drawing square = makeDrawing({rectangle(0, 0, 10, 10)});
    QVERIFY(std::abs(areaOf(refine::offset(square, 1, refine::Joins::Mitre)) - 144) < 1e-9);
    QVERIFY(std::abs(areaOf(refine::offset(square, 1, refine::Joins::Bevel)) - 142) < 1e-9);
    // A needle's mitre is cut off at ten times the distance.
    const Drawing needle = makeDrawing({polygonThrough({{0, -0.1}, {50, 0}, {0, 0.1}})});
    const Box box = boxOf(pathsOf(refine::offset(needle, 1, refine::Joins::Mitre)));
    QVERIFY2(std::abs(box.high.x - 60) < 0.2, qPrintable(QString::number(box.high.x)));
  }

  void holesShrinkAsTheirIslandGrows() {
    const Drawing ring = makeDrawing({circlePath({0, 0}, 20), circlePath({0, 0}, 5)});
    const Drawing grown = refine::offset(ring, 2, refine::Joins::Round);
    QCOMPARE(grown.outlines.size(), 2U);
    QVERIFY(std::abs(areaOf(grown) - std::numbers::pi * (22 * 22 - 3 * 3)) < 1e-6);
    QCOMPARE(refine::offset(ring, 6, refine::Joins::Round).outlines.size(), 1U);
    QCOMPARE(refine::offset(ring, -8, refine::Joins::Round).outlines.size(), 0U);
    QVERIFY(std::abs(areaOf(refine::offset(ring, -3, refine::Joins::Round)) - std::numbers::pi * (17 * 17 - 8 * 8)) <
            1e-6);
    // Two that run together, and two that part.
    const Drawing pair = makeDrawing({rectangle(0, 0, 10, 10), rectangle(11, 0, 10, 10)});
    QCOMPARE(refine::offset(pair, 1, refine::Joins::Round).outlines.size(), 1U);
    const Drawing dumbbell =
        refine::united(makeDrawing({rectangle(0, 0, 10, 10), rectangle(9, 4, 12, 1), rectangle(20, 0, 10, 10)}));
    QCOMPARE(refine::offset(dumbbell, -1, refine::Joins::Round).outlines.size(), 2U);
  }

  /// Whatever the outline: all of the offset lies at the distance from it.
  void offsetsOfAnyOutlineKeepTheirDistance() {
    for (unsigned seed = 1; seed <= 40; ++seed) {
      std::mt19937 random(seed);
      const Drawing drawing = blobs(random, 1 + static_cast<int>(seed % 3));
      for (const double mm : {0.3, 1.5, 4.0, -0.3, -1.5}) {
        const Drawing moved = refine::offset(drawing, mm, refine::Joins::Round);
        const QString where = QString("seed %1 by %2").arg(seed).arg(mm);
        QVERIFY2(faultsOf(moved).isEmpty(), qPrintable(where + ": " + faultsOf(moved)));
        for (const Outline& outline : moved.outlines) {
          for (std::size_t s = 0; s < outline.path().segments.size(); ++s) {
            for (const double t : {0.1, 0.5, 0.9}) {
              const Point p = pointAt(pieceOf(outline.path(), s), t);
              double least = 1e9;
              for (const Outline& from : drawing.outlines) least = std::min(least, nearestOn(from.path(), p).off);
              QVERIFY2(std::abs(least - std::abs(mm)) < 0.005, qPrintable(where + QString(": %1").arg(least)));
            }
          }
        }
      }
    }
  }

  void openLinesAreThickened() {
    const Path line{{0, 0}, {Segment::line({30, 0})}, false};
    QVERIFY(std::abs(areaOf(refine::thickened(makeDrawing({line}), 2, refine::Joins::Round, refine::Tips::Flat)) - 60) <
            1e-9);
    QVERIFY(std::abs(areaOf(refine::thickened(makeDrawing({line}), 2, refine::Joins::Round, refine::Tips::Round)) -
                     (60 + std::numbers::pi)) < 1e-6);
    const Path arc{{10, 0}, {Segment::arc({-10, 0}, 1)}, false};
    QVERIFY(std::abs(areaOf(refine::thickened(makeDrawing({arc}), 2, refine::Joins::Round, refine::Tips::Flat)) -
                     std::numbers::pi / 2 * (121 - 81)) < 1e-6);
    // A line that crosses itself bounds a hole.
    const Path loop{{0, 0}, {Segment::line({30, 0}), Segment::line({30, 20}), Segment::line({15, -10})}, false};
    QCOMPARE(refine::thickened(makeDrawing({loop}), 1, refine::Joins::Round, refine::Tips::Round).outlines.size(), 2U);
    Drawing drawn = makeDrawing({line, line});
    drawn.outlines[1].stroke = {3, 3, 3};
    const Drawing asDrawn = refine::thickened(drawn, 0, refine::Joins::Round, refine::Tips::Flat);
    QVERIFY(!asDrawn.path(0).closed && asDrawn.path(1).closed);
    QVERIFY(asDrawn.outlines[1].stroke == StrokeWidth());
    QVERIFY(std::abs(std::abs(areaOf(asDrawn)) - 90) < 1e-9);
  }

  void aRingGoesRoundEverything() {
    Drawing drawing = makeDrawing({rectangle(0, 0, 10, 10), circlePath({40, 5}, 5)});
    add(drawing, {{5, 20}, {Segment::line({30, 25})}, false});
    const Drawing ringed = refine::withRing(drawing, 2, 3, refine::Joins::Round);
    QCOMPARE(ringed.outlines.size(), 5U);
    const Path& outer = ringed.path(3);
    const Path& inner = ringed.path(4);
    QVERIFY(outer.closed && inner.closed && signedArea(outer) > 0 && signedArea(inner) < 0);
    for (std::size_t s = 0; s < inner.segments.size(); ++s) {
      for (const double t : {0.0, 0.33, 0.66}) {
        const Point p = pointAt(pieceOf(inner, s), t);
        for (std::size_t i = 0; i < 3; ++i) QVERIFY(nearestOn(ringed.path(i), p).off > 2 - 0.003);
        QVERIFY(std::abs(nearestOn(outer, p).off - 3) < 0.01);
      }
    }
  }
};

RIM_TEST(TestCombine)
#include "tst_combine.moc"
