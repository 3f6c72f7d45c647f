// The middles of strokes that were drawn as outlines round their ends: known lines are made outlines and found again.
#include <QtTest>
#include <numbers>

#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"
#include "core/mend/repair/mend.h"
#include "core/mend/repair/middle_lines.h"
#include "core/refine/combine/areas.h"
#include "core/refine/combine/offset.h"
#include "core/refine/step.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

Path through(const std::vector<Point>& points, bool closed = false) {
  Path path = polygonThrough(points);
  path.closed = closed;
  if (!closed) path.segments.pop_back();
  return path;
}

Path lineOf(const QString& shape) {
  if (shape == "L") return through({{0, 20}, {0, 0}, {12, 0}});
  if (shape == "Z") return through({{0, 20}, {14, 20}, {0, 0}, {14, 0}});
  if (shape == "V") return through({{0, 20}, {6, 0}, {12, 20}});
  if (shape == "I") return through({{3, 0}, {3, 25}});
  // Three quarters of a circle, and two that wind against each other.
  if (shape == "C")
    return {{8, 6}, {Segment::arc({-8, 6}, 0.45), Segment::arc({-8, -6}, 0.3), Segment::arc({8, -6}, 0.45)}, false};
  return {{10, 16}, {Segment::arc({5, 8}, 1), Segment::arc({0, 0}, -1)}, false};
}

/// The areas of some lines made so wide, united.
Drawing strokes(const std::vector<Path>& lines, double width, refine::Joins joins, refine::Tips tips) {
  return refine::united(refine::thickened(makeDrawing(lines), width, joins, tips));
}

mend::Repaired middles(const Drawing& drawing, double widest = 5) { return mend::strokesToMiddles(drawing, widest); }

}  // namespace

class TestMiddleLines : public QObject {
  Q_OBJECT

 private slots:
  void oneLineWhereOneWasDrawn_data() {
    QTest::addColumn<QString>("shape");
    QTest::addColumn<double>("width");
    QTest::addColumn<bool>("flat");
    for (const char* shape : {"L", "Z", "V", "I", "C", "S"}) {
      for (const double width : {0.6, 2.5}) {
        for (const bool flat : {false, true}) {
          const QString row = QStringLiteral("%1, %2 mm, %3").arg(shape).arg(width).arg(flat ? "flat" : "round");
          QTest::newRow(qPrintable(row)) << QString(shape) << width << flat;
        }
      }
    }
  }
  void oneLineWhereOneWasDrawn() {
    QFETCH(QString, shape);
    QFETCH(double, width);
    QFETCH(bool, flat);
    const Path line = lineOf(shape);
    const Drawing drawn = strokes({line}, width, flat ? refine::Joins::Mitre : refine::Joins::Round,
                                  flat ? refine::Tips::Flat : refine::Tips::Round);
    QCOMPARE(drawn.outlines.size(), 1U);
    const mend::Repaired found = middles(drawn);
    QCOMPARE(found.count, 1U);
    QCOMPARE(found.drawing.outlines.size(), 1U);
    const Outline& middle = found.drawing.outlines[0];
    QVERIFY(!middle.path().closed);
    const double off = std::max(farthest(line, middle.path()), farthest(middle.path(), line));
    QVERIFY2(off < 0.03 * width, qPrintable(QStringLiteral("%1 of a width of %2").arg(off).arg(width)));
    QVERIFY2(std::abs(middle.stroke.usual / width - 1) < 0.01, qPrintable(QString::number(middle.stroke.usual)));
    QVERIFY(middle.path().segments.size() <= line.segments.size() + 2);
    QCOMPARE(middle.id, drawn.outlines[0].id);
  }

  void linesThatMeet() {
    const std::vector<Path> cross{through({{-10, 0}, {10, 0}}), through({{0, -10}, {0, 10}})};
    QCOMPARE(middles(strokes(cross, 1, refine::Joins::Round, refine::Tips::Round)).drawing.outlines.size(), 2U);
    const std::vector<Path> tee{through({{-10, 0}, {10, 0}}), through({{0, -10}, {0, 0}})};
    const Drawing two = middles(strokes(tee, 1, refine::Joins::Round, refine::Tips::Round)).drawing;
    QCOMPARE(two.outlines.size(), 2U);
    double length = 0;
    for (const Outline& outline : two.outlines) length += pathLength(outline.path());
    QVERIFY(std::abs(length - 30) < 0.1);
  }

  void aRingWithATailIsBoth() {
    const Drawing ring =
        strokes({circlePath({0, 0}, 10), through({{10, 0}, {25, 0}})}, 1, refine::Joins::Round, refine::Tips::Round);
    // What closes on itself has no area of its own: the pen went round.
    const Drawing drawn = refine::united(
        makeDrawing({refine::offset(makeDrawing({circlePath({0, 0}, 10)}), 0.5, refine::Joins::Round).path(0),
                     refine::offset(makeDrawing({circlePath({0, 0}, 10)}), -0.5, refine::Joins::Round).path(0)}));
    QVERIFY(!ring.outlines.empty() && drawn.outlines.size() == 2);
    const mend::Repaired found = middles(drawn);
    QCOMPARE(found.drawing.outlines.size(), 1U);
    QVERIFY(found.drawing.path(0).closed);
    QVERIFY(farthest(found.drawing.path(0), circlePath({0, 0}, 10)) < 0.02);
  }

  void whatIsNoStrokeStays() {
    const Drawing plates = makeDrawing({polygonThrough({{0, 0}, {40, 0}, {40, 30}, {0, 30}}), circlePath({20, 15}, 2),
                                        polygonThrough({{50, 0}, {53, 0}, {53, 9}, {50, 9}}),
                                        polygonThrough({{60, 0}, {80, 0}, {60, 3}})});
    const mend::Repaired found = middles(plates);
    QCOMPARE(found.count, 0U);
    QVERIFY(found.drawing.outlines == plates.outlines);
    // Wider than a stroke may be.
    QCOMPARE(middles(strokes({lineOf("L")}, 2.5, refine::Joins::Round, refine::Tips::Round), 2).count, 0U);
    QCOMPARE(middles(makeDrawing({through({{0, 0}, {1, 0}}, false)})).count, 0U);
    QCOMPARE(middles({}).count, 0U);
  }

  void mendingKnowsBothKinds() {
    Drawing drawn = strokes({lineOf("Z")}, 1, refine::Joins::Mitre, refine::Tips::Flat);
    add(drawn, circlePath({40, 10}, 8));
    add(drawn, circlePath({40, 10}, 7));
    mend::MendSettings settings;
    settings.doubles = mend::DoubleRule::Centre;
    const Drawing lines = mend::mended(drawn, settings).drawing;
    QCOMPARE(lines.outlines.size(), 2U);
    QVERIFY(!lines.path(0).closed && lines.path(1).closed);
    QVERIFY(std::abs(boxOf(lines.path(1)).width() - 15) < 0.01);
    // A stroke inside a ring is one, too.
    Drawing inside = drawn;
    add(inside, strokes({through({{37, 10}, {43, 10}})}, 1, refine::Joins::Mitre, refine::Tips::Flat).path(0));
    const Drawing all = mend::mended(inside, settings).drawing;
    QCOMPARE(all.outlines.size(), 3U);
    QVERIFY(!all.path(2).closed);
    QVERIFY(std::abs(pathLength(all.path(2)) - 6) < 0.05);
    // An outer edge alone says nothing about a stroke that has no inner one.
    settings.doubles = mend::DoubleRule::Outer;
    QCOMPARE(mend::mended(drawn, settings).drawing.outlines.size(), 2U);
    QVERIFY(mend::mended(drawn, settings).drawing.path(0).closed);
    // The Refine step does the same, and thickens it again.
    const Drawing refined = refine::done(drawn, refine::StrokesTo{mend::DoubleRule::Centre, 3}).drawing;
    QCOMPARE(refined.outlines.size(), 2U);
    const Drawing again =
        refine::done(makeDrawing({refined.path(0)}), refine::ThickenLines{1, refine::Joins::Mitre, refine::Tips::Flat})
            .drawing;
    QVERIFY(std::abs(signedArea(again.path(0)) / signedArea(drawn.path(0)) - 1) < 0.01);
  }
};

RIM_TEST(TestMiddleLines)
#include "tst_middle_lines.moc"
