// Strokes that the pen drew in one and whose ink failed: found, told, and drawn on smoothly; dashes and lines that only
// end near each other stay.

#include <QTest>

#include "core/geometry/segment.h"
#include "core/mend/decide.h"
#include "core/mend/find/broken_strokes.h"
#include "core/mend/find/inspect.h"
#include "core/mend/repair/bridge.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

constexpr double kPen = 1;  // mm

/// Lines of a pen.
Drawing penLines(const std::vector<Path>& paths, double width = kPen) {
  Drawing drawing;
  for (const Path& path : paths) {
    Outline outline(path);
    outline.id = idOf(path, 0, drawing.outlines.size());
    outline.stroke = {width, width, width};
    drawing.outlines.push_back(std::move(outline));
  }
  return drawing;
}

Path line(Point from, Point to) { return {from, {Segment::line(to)}, false}; }

/// The part of a circle round (0, 0) from one angle to another, counter-clockwise, radians.
Path arc(double radius, double from, double to) {
  const auto at = [radius](double angle) { return Point{std::cos(angle), std::sin(angle)} * radius; };
  return {at(from), {Segment::arc(at(to), std::tan((to - from) / 4))}, false};
}

std::size_t breaksIn(const Drawing& drawing) {
  const auto found = mend::inspect(drawing, {});
  return static_cast<std::size_t>(
      std::count_if(found.begin(), found.end(), [](const mend::Finding& f) { return f.repair == "bridge"; }));
}

}  // namespace

class TestBrokenStrokes : public QObject {
  Q_OBJECT

 private slots:
  void aLineGoesOnStraight() {
    const Drawing drawing = penLines({line({0, 0}, {20, 0}), line({50, 0}, {23, 0})});
    const auto findings = mend::inspect(drawing, {});
    QCOMPARE(findings.size(), 1U);
    QCOMPARE(findings.front().repair, "bridge");
    QVERIFY(findings.front().kind == mend::FindingKind::OpenEnd);
    // The pen's middle stops half a width before its ink does.
    QVERIFY(std::abs(findings.front().sizeMm - (3 - kPen)) < 1e-9);
    QCOMPARE(mend::repairsFor(findings.front()), std::vector<std::string>{"bridge"});
    const Drawing one = mend::repaired(drawing, findings.front(), "bridge", {});
    QCOMPARE(one.outlines.size(), 1U);
    QVERIFY(std::abs(pathLength(one.path(0)) - 50) < 1e-9);
    QCOMPARE(one.path(0).segments.size(), 1U);
    QCOMPARE(one.outlines[0].id, drawing.outlines[0].id);
    QCOMPARE(one.outlines[0].stroke.usual, kPen);
    QVERIFY(mend::inspect(one, {}).empty());
  }

  void aRingBrokenTwiceIsOneRing() {
    const Drawing drawing = penLines({arc(10, 0.1, 3.0), arc(10, 3.2, 6.2)});
    QCOMPARE(breaksIn(drawing), 2U);
    const mend::Repaired ring = mend::bridgedStrokes(drawing, {});
    QCOMPARE(ring.count, 2U);
    QCOMPARE(ring.drawing.outlines.size(), 1U);
    QVERIFY(ring.drawing.path(0).closed);
    for (std::size_t i = 0; i < ring.drawing.path(0).segments.size(); ++i) {
      const Piece piece = pieceOf(ring.drawing.path(0), i);
      for (double t = 0; t < 1; t += 0.125) QVERIFY(std::abs(length(pointAt(piece, t)) - 10) < 0.01);
    }
    QCOMPARE(mend::repairedAll(drawing, mend::FindingKind::OpenEnd, "bridge", {}).outlines.size(), 1U);
    QCOMPARE(mend::repairedAsProposed(drawing, {}, 1).outlines.size(), 1U);
  }

  void whatIsLeftIsNoProposal() {
    const Drawing drawing = penLines({arc(10, 0.1, 3.0), arc(10, 3.2, 6.2)});
    const auto findings = mend::inspect(drawing, {});
    QCOMPARE(findings.size(), 2U);
    mend::MendWork work;
    work.steps = {mend::stepFor(drawing, findings[1], mend::MendStep::What::Leave, "")};
    const Drawing taken = mend::repairedAsProposed(drawing, work, 1);
    QCOMPARE(taken.outlines.size(), 1U);
    QVERIFY(!taken.path(0).closed);
  }

  void aBrokenRingClosesOnItself() {
    const Drawing drawing = penLines({arc(10, 0.1, 6.1)});
    const auto findings = mend::inspect(drawing, {});
    QCOMPARE(findings.size(), 1U);
    QVERIFY(findings.front().words.find("ring") != std::string::npos);
    QVERIFY(mend::repaired(drawing, findings.front(), "bridge", {}).path(0).closed);
  }

  void theNearestEndsBelongTogether() {
    // Three lines end in one place; two of them are one.
    const Drawing drawing = penLines({line({0, 0}, {20, 0}), line({22, 0.1}, {50, 0.1}), line({23.5, -0.4}, {50, -6})});
    QCOMPARE(breaksIn(drawing), 1U);
    QCOMPARE(mend::bridgedStrokes(drawing, {}).drawing.outlines.size(), 2U);
  }

  void whatWasNotOneStays_data() {
    QTest::addColumn<std::vector<Path>>("paths");
    QTest::newRow("too far") << std::vector<Path>{line({0, 0}, {20, 0}), line({24.5, 0}, {50, 0})};
    QTest::newRow("aside") << std::vector<Path>{line({0, 0}, {20, 0}), line({21.5, 1.5}, {21.5, 30})};
    QTest::newRow("side by side") << std::vector<Path>{line({0, 0}, {20, 0}), line({0, 2}, {20, 2})};
    QTest::newRow("dashes") << std::vector<Path>{line({0, 0}, {6, 0}), line({8, 0}, {14, 0}), line({16, 0}, {22, 0})};
  }
  void whatWasNotOneStays() {
    QFETCH(std::vector<Path>, paths);
    const Drawing drawing = penLines(paths);
    QCOMPARE(breaksIn(drawing), 0U);
    QVERIFY(mend::bridgedStrokes(drawing, {}).drawing.outlines == drawing.outlines);
  }

  void aShortEndOfALineIsNoDash() { QCOMPARE(breaksIn(penLines({line({0, 0}, {6, 0}), line({8, 0}, {40, 0})})), 1U); }

  void linesOfNoPenAreLeft() { QCOMPARE(breaksIn(penLines({line({0, 0}, {20, 0}), line({23, 0}, {50, 0})}, 0)), 0U); }

  void aGapThatCountsIsJoinedAsBefore() {
    const Drawing drawing = penLines({line({0, 0}, {20, 0}), line({20.3, 0}, {50, 0})});
    const auto findings = mend::inspect(drawing, {});
    QCOMPARE(findings.size(), 1U);
    QCOMPARE(findings.front().repair, "join");
  }
};

RIM_TEST(TestBrokenStrokes)
#include "tst_broken_strokes.moc"
