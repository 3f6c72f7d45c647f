// What is inspected again after a change is just what all of it would be found to be; and it is little.

#include <QTest>
#include <algorithm>
#include <numbers>
#include <random>

#include "core/error.h"
#include "core/mend/find/inspect.h"
#include "core/mend/find/inspected.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

constexpr double kCellMm = 8;

double between(std::mt19937& random, double low, double high) {
  return std::uniform_real_distribution<double>(low, high)(random);
}

/// One of what drawings are made of, round and sound or with a fault, somewhere about the cell.
std::vector<Path> thing(Point at, std::mt19937& random) {
  const Point c = at + Point{between(random, 2, 6), between(random, 2, 6)};
  const double r = between(random, 0.2, 4.5);
  const double gap = between(random, 0, 0.7);
  switch (random() % 9) {
    case 0:
      return {circlePath(c, r)};
    case 1:
      return {circlePath(c, r + 0.6), circlePath(c, r)};  // the edges of a stroke
    case 2:
      return {squarePath(r, at)};
    case 3:
      return {squarePath(kCellMm, at)};  // shares its sides with such neighbours
    case 4:
      return {linePath(c, c + Point{3, 1}), linePath(c + Point{3 + gap, 1}, c + Point{4, -2})};
    case 5:
      return {linePath(at, at + Point{kCellMm, 0})};
    case 6:
      return {polygonThrough({c, c + Point{r, r}, c + Point{r, 0}, c + Point{0, r}})};  // an hourglass
    case 7:
      return {linePath(at, at + Point{kCellMm, 0}), linePath(at, at + Point{0, kCellMm}),
              linePath(at + Point{gap, 0}, at + Point{4, 4})};
    default:
      return {{c, {Segment::cubic(c + Point{5, 5}, c + Point{-5, 5}, c + Point{between(random, -1, 1), 0})}, false}};
  }
}

Drawing crowd(int side, std::mt19937& random) {
  std::vector<Path> paths;
  for (int y = 0; y < side; ++y) {
    for (int x = 0; x < side; ++x) {
      for (Path& path : thing(Point{x * kCellMm, y * kCellMm}, random)) paths.push_back(std::move(path));
    }
  }
  if (random() % 3 == 0) paths.push_back(squarePath(side * kCellMm + 20, {-10, -10}));
  Drawing drawing = makeDrawing(std::move(paths), {{"a", 0, 0, 0}, {"b", 9, 9, 9}}, {});
  for (Outline& outline : drawing.outlines) {
    outline.layer = random() % 4 == 0 ? 1 : 0;
    if (!outline.path().closed && random() % 3 == 0) outline.stroke = {0.8, 0.7, 0.9};
  }
  return drawing;
}

/// The drawing after something that a person might do to one outline of it.
Drawing edited(Drawing drawing, std::mt19937& random) {
  if (drawing.outlines.empty()) return drawing;
  const std::size_t i = random() % drawing.outlines.size();
  const Path path = drawing.path(i);
  const Point by{between(random, -3, 3), between(random, -3, 3)};
  switch (random() % 7) {
    case 0:
      drawing.setPath(i, scaled(path, 1, by));
      break;
    case 1:
      drawing.outlines.erase(drawing.outlines.begin() + static_cast<std::ptrdiff_t>(i));
      break;
    case 2:
      add(drawing, scaled(path, 1, {0.02, 0}), drawing.outlines[i].layer);
      break;
    case 3:
      drawing.setPath(i, reversed(path));
      break;
    case 4: {
      Path other = path;
      other.segments.back().end = other.segments.back().end + by * 0.2;
      if (!other.closed) drawing.setPath(i, other);
      break;
    }
    case 5:
      drawing.outlines[i].layer = 1 - drawing.outlines[i].layer;
      break;
    default:
      add(drawing, thing(path.start, random).front());
      break;
  }
  return drawing;
}

QString textOf(const mend::Finding& f) {
  return QString("%1 at %2,%3 %4/%5 size %6: %7 (%8)")
      .arg(QString::fromStdString(mend::nameOf(f.kind)))
      .arg(f.at.x, 0, 'g', 12)
      .arg(f.at.y, 0, 'g', 12)
      .arg(static_cast<quint64>(f.outline))
      .arg(static_cast<quint64>(f.other))
      .arg(f.sizeMm, 0, 'g', 12)
      .arg(QString::fromStdString(mend::sentenceOf(f)), QString::fromStdString(f.repair));
}

QStringList textsOf(const std::vector<mend::Finding>& findings) {
  QStringList texts;
  for (const mend::Finding& f : findings) texts << textOf(f);
  return texts;
}

}  // namespace

class TestInspected : public QObject {
  Q_OBJECT

 private slots:
  void afterAnyEditsTheFindingsAreThoseOfAll_data() {
    QTest::addColumn<int>("seed");
    QTest::addColumn<int>("side");
    for (int seed = 0; seed < 12; ++seed) QTest::addRow("crowd %d", seed) << seed << 10;
    for (int seed = 12; seed < 24; ++seed) QTest::addRow("a few %d", seed) << seed << 3;
  }
  void afterAnyEditsTheFindingsAreThoseOfAll() {
    QFETCH(int, seed);
    QFETCH(int, side);
    std::mt19937 random(static_cast<unsigned>(seed));
    Drawing drawing = crowd(side, random);
    mend::Inspected known = mend::inspected(drawing, {});
    QCOMPARE(textsOf(known.findings()), textsOf(mend::inspect(drawing, {})));
    QVERIFY(!known.findings().empty());
    constexpr int kEdits = 25;
    for (int i = 0; i < kEdits; ++i) {
      drawing = edited(std::move(drawing), random);
      known = mend::inspected(drawing, {}, known);
      QCOMPARE(textsOf(known.findings()), textsOf(mend::inspect(drawing, {})));
    }
  }

  void severalEditsAtOnceAreFoundToo() {
    std::mt19937 random(77);
    Drawing drawing = crowd(10, random);
    mend::Inspected known = mend::inspected(drawing, {});
    for (int round = 0; round < 10; ++round) {
      for (int i = 0; i < 4; ++i) drawing = edited(std::move(drawing), random);
      known = mend::inspected(drawing, {}, known);
      QCOMPARE(textsOf(known.findings()), textsOf(mend::inspect(drawing, {})));
    }
  }

  void whatDidNotChangeIsNotLookedAt() {
    std::vector<Path> paths;
    for (int i = 0; i < 400; ++i) paths.push_back(squarePath(4, Point{kCellMm * (i % 20), kCellMm * (i / 20)}));
    Drawing drawing = makeDrawing(std::move(paths));
    mend::Inspected known = mend::inspected(drawing, {});
    QCOMPARE(known.lookedAt(), std::size_t{400});
    QVERIFY(known.findings().empty());
    drawing.setPath(210, scaled(drawing.path(210), 1, {5, 1}));  // over its neighbour
    known = mend::inspected(drawing, {}, known);
    QCOMPARE(known.lookedAt(), std::size_t{2});
    QCOMPARE(known.findings().size(), std::size_t{2});
    known = mend::inspected(drawing, {}, known);
    QCOMPARE(known.lookedAt(), std::size_t{0});
    QCOMPARE(known.findings().size(), std::size_t{2});
  }

  void otherSettingsAnotherOrderAndLayersAreLookedAtAnew() {
    std::mt19937 random(5);
    Drawing drawing = crowd(8, random);
    const mend::Inspected known = mend::inspected(drawing, {});
    mend::MendSettings wide;
    wide.gapMm = 2;
    QCOMPARE(textsOf(mend::inspected(drawing, wide, known).findings()), textsOf(mend::inspect(drawing, wide)));
    std::reverse(drawing.outlines.begin(), drawing.outlines.end());
    QCOMPARE(textsOf(mend::inspected(drawing, {}, known).findings()), textsOf(mend::inspect(drawing, {})));
    drawing.layers.clear();
    QCOMPARE(textsOf(mend::inspected(drawing, {}, known).findings()), textsOf(mend::inspect(drawing, {})));
    drawing.outlines.clear();
    QVERIFY(mend::inspected(drawing, {}, known).findings().empty());
  }

  void twoOutlinesOfOneIdMakeNoTrouble() {
    std::mt19937 random(6);
    Drawing drawing = crowd(8, random);
    const mend::Inspected known = mend::inspected(drawing, {});
    drawing.outlines[3].id = drawing.outlines[90].id;
    const mend::Inspected doubled = mend::inspected(drawing, {}, known);
    QCOMPARE(doubled.lookedAt(), drawing.outlines.size());
    drawing.outlines.erase(drawing.outlines.begin() + 3);
    QCOMPARE(textsOf(mend::inspected(drawing, {}, doubled).findings()), textsOf(mend::inspect(drawing, {})));
  }

  void aStopStopsIt() {
    std::mt19937 random(7);
    const Drawing drawing = crowd(8, random);
    std::stop_source stop;
    stop.request_stop();
    QVERIFY_THROWS_EXCEPTION(Cancelled, mend::inspected(drawing, {}, {}, stop.get_token()));
  }
};

RIM_TEST(TestInspected)
#include "tst_inspected.moc"
