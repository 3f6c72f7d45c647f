// Where corners leave it open which arms a pen drew at once, figures close.

#include <QTest>

#include "core/trace/lines/close_rings.h"
#include "core/trace/trace.h"
#include "support/artwork.h"
#include "support/pen_ways.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;
using namespace rim::trace::lines;

using Strokes = std::vector<PenStroke>;

Q_DECLARE_METATYPE(Strokes)
Q_DECLARE_METATYPE(std::vector<StrokeLine>)

namespace {

PenStroke figure(const std::vector<Point>& corners) { return straight(corners, true); }

/// The kite's cloth.
PenStroke diamond() { return figure({{100, 190}, {150, 120}, {100, 70}, {50, 120}}); }

StrokeLine lineThrough(const std::vector<Point>& corners) {
  constexpr double kStepPx = 0.5;
  StrokeLine line;
  line.widths = {6};
  line.points = {corners.front()};
  for (std::size_t i = 1; i < corners.size(); ++i) {
    const int parts = static_cast<int>(distance(corners[i - 1], corners[i]) / kStepPx);
    for (int k = 1; k <= parts; ++k)
      line.points.push_back(lerp(corners[i - 1], corners[i], static_cast<double>(k) / parts));
  }
  return line;
}

double lengthOf(const StrokeLine& line) {
  double length = line.closed ? distance(line.points.back(), line.points.front()) : 0;
  for (std::size_t i = 1; i < line.points.size(); ++i) length += distance(line.points[i - 1], line.points[i]);
  return length;
}

}  // namespace

class TestCloseRings : public QObject {
  Q_OBJECT

 private slots:
  void figuresAreClosed_data() {
    QTest::addColumn<Strokes>("strokes");
    QTest::addColumn<int>("closed");
    QTest::newRow("a kite and its tail") << Strokes{diamond(), straight({{100, 70}, {105, 25}})} << 1;
    QTest::newRow("four arms at corners")
        << Strokes{figure({{70, 130}, {130, 130}, {122, 60}, {78, 60}}), straight({{70, 130}, {30, 165}}),
                   straight({{130, 130}, {170, 165}}), straight({{78, 60}, {35, 30}}), straight({{122, 60}, {165, 30}})}
        << 1;
    QTest::newRow("a hub and its spokes")
        << Strokes{circle({100, 100}, 22), straight({onCircle({100, 100}, 22, 0.3), onCircle({100, 100}, 80, 0.3)}),
                   straight({onCircle({100, 100}, 22, 2.8), onCircle({100, 100}, 80, 2.8)}),
                   straight({{100, 78}, {100, 20}})}
        << 1;
    QTest::newRow("a feathered shaft") << Strokes{figure({{60, 80}, {60, 40}, {20, 20}, {20, 50}, {20, 80}}),
                                                  straight({{60, 80}, {150, 170}})}
                                       << 1;
    QTest::newRow("a kite whose tail goes on along its side")
        << Strokes{diamond(), straight({{100, 70}, {140, 30}})} << 0;
    QTest::newRow("an A") << Strokes{straight({{40, 40}, {100, 180}, {160, 40}}), straight({{66, 100}, {134, 100}})}
                          << 0;
    QTest::newRow("a flag at its pole") << Strokes{straight({{50, 20}, {50, 180}}),
                                                   straight({{50, 180}, {140, 150}, {50, 110}})}
                                        << 0;
    // The wall goes straight on, though the roof bends just above.
    QTest::newRow("an aisle beside a nave")
        << Strokes{straight({{60, 30}, {60, 126}, {110, 180}, {160, 126}, {160, 30}}),
                   straight({{60, 110}, {20, 85}, {20, 30}, {160, 30}})}
        << 0;
    QTest::newRow("a bowl at its stem") << Strokes{straight({{60, 20}, {60, 180}}), bow({60, 90}, {140, 180}, 40)} << 0;
  }

  void figuresAreClosed() {
    QFETCH(Strokes, strokes);
    QFETCH(int, closed);
    trace::TraceSettings settings;
    settings.method = trace::TraceMethod::Centreline;
    for (const double pen : {6.0, 12.0}) {
      const cv::Mat grey = penDrawing(200, 200, strokes, pen);
      for (const bool clean : {true, false}) {
        const auto picture = clean ? pictureOf(grey) : asJpeg(pictureOf(noisy(grey, 4)), 60);
        const trace::Tracing got = trace::trace(picture, settings);
        const auto rings =
            std::count_if(got.outlines.begin(), got.outlines.end(), [](const Path& path) { return path.closed; });
        QCOMPARE(static_cast<int>(rings), closed);
        if (closed > 0) QCOMPARE(got.outlines.size(), strokes.size());
        Strokes figures;
        std::copy_if(strokes.begin(), strokes.end(), std::back_inserter(figures),
                     [](const PenStroke& stroke) { return stroke.closed; });
        double off = 0;
        for (const Path& path : got.outlines) {
          const Strokes& drawn = path.closed ? figures : strokes;
          for (const Segment& segment : path.segments) off = std::max(off, distanceToWays(segment.end, drawn));
        }
        QVERIFY2(off < (clean ? 0.5 : 0.8), qPrintable(QString("a node is %1 px off, pen %2").arg(off).arg(pen)));
      }
    }
  }

  void nothingOfALineIsLost() {
    // Up a tail into a corner of a square, and round it.
    StrokeLine line = lineThrough({{20, 10}, {60, 50}, {100, 50}, {100, 90}, {60, 90}, {60, 50}});
    line.freeEnds[0] = FreeEnd{{}, {18, 8}, 6, false};
    for (const bool turned : {false, true}) {
      if (turned) {
        std::reverse(line.points.begin(), line.points.end());
        std::swap(line.freeEnds[0], line.freeEnds[1]);
      }
      const std::vector<StrokeLine> got = withRingsClosed({line}, 6);
      QCOMPARE(got.size(), 2U);
      const std::size_t ring = got[0].closed ? 0 : 1;
      const StrokeLine& tail = got[1 - ring];
      QVERIFY(got[ring].closed && !tail.closed);
      QVERIFY(std::abs(lengthOf(got[ring]) - 160) < 0.5);
      QVERIFY(std::abs(lengthOf(got[ring]) + lengthOf(tail) - lengthOf(line)) < 0.5);
      const std::size_t loose = tail.freeEnds[0] ? 0 : 1;
      QVERIFY(tail.freeEnds[loose] && !tail.freeEnds[1 - loose]);
      QVERIFY(distance(loose == 0 ? tail.points.front() : tail.points.back(), {20, 10}) < 0.01);
      QCOMPARE(got[ring].widths, std::vector<double>{6});
    }
  }

  void whatIsClearStays_data() {
    QTest::addColumn<std::vector<StrokeLine>>("lines");
    StrokeLine ring = lineThrough({{0, 0}, {60, 0}, {60, 60}, {0, 60}, {0, 0.5}});
    ring.closed = true;
    QTest::newRow("nothing") << std::vector<StrokeLine>{};
    QTest::newRow("one line") << std::vector{lineThrough({{0, 0}, {60, 0}})};
    QTest::newRow("no point") << std::vector{StrokeLine{}, lineThrough({{0, 0}, {60, 0}})};
    QTest::newRow("a closed figure that another line meets") << std::vector{ring, lineThrough({{60, 60}, {100, 100}})};
    QTest::newRow("an arm too short to say")
        << std::vector{lineThrough({{20, 10}, {60, 50}, {63, 50}}), lineThrough({{60, 50}, {60, 53}, {63, 50}})};
  }

  void whatIsClearStays() {
    QFETCH(std::vector<StrokeLine>, lines);
    const std::vector<StrokeLine> got = withRingsClosed(lines, 6);
    QCOMPARE(got.size(), lines.size());
    for (std::size_t i = 0; i < got.size(); ++i) {
      QCOMPARE(got[i].closed, lines[i].closed);
      QCOMPARE(got[i].points.size(), lines[i].points.size());
    }
  }
};

RIM_TEST(TestCloseRings)
#include "tst_close_rings.moc"
