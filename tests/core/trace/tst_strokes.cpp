// The middles of pen strokes. Truth: the way of the pen that the pictures are drawn by.

#include <QTest>
#include <numbers>

#include "core/error.h"
#include "core/geometry/nearest_on_paths.h"
#include "core/geometry/point_in_polygon.h"
#include "core/geometry/segment.h"
#include "core/trace/trace.h"
#include "support/artwork.h"
#include "support/pen_ways.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

using Strokes = std::vector<PenStroke>;

namespace {

constexpr double kPi = std::numbers::pi;

trace::TraceSettings centrelines() {
  trace::TraceSettings settings;
  settings.method = trace::TraceMethod::Centreline;
  return settings;
}

picture::Picture spoiled(const cv::Mat& grey) { return asJpeg(pictureOf(noisy(grey, 4)), 60); }

/// The value that 95 of 100 places along the ways do not exceed in distance to the paths.
double missed95(const Strokes& strokes, const std::vector<Path>& paths) {
  const NearestOnPaths nearest{Paths(paths)};
  std::vector<double> off;
  for (const PenStroke& stroke : strokes) {
    const std::size_t count = stroke.way.size();
    for (std::size_t i = stroke.closed ? 0 : 1; i < count; ++i) {
      const Point a = stroke.way[(i + count - 1) % count];
      const Point b = stroke.way[i];
      const int parts = 1 + static_cast<int>(distance(a, b));
      for (int k = 0; k < parts; ++k) off.push_back(nearest.distanceTo(lerp(a, b, static_cast<double>(k) / parts)));
    }
  }
  std::sort(off.begin(), off.end());
  return off[off.size() * 95 / 100];
}

/// The value that 95 of 100 places along the paths do not exceed.
double off95(const std::vector<Path>& paths, const std::function<double(Point)>& distanceOf) {
  std::vector<double> off;
  for (const Path& path : paths) {
    for (std::size_t i = 0; i < path.segments.size(); ++i) {
      const Piece piece = pieceOf(path, i);
      const int parts = 1 + static_cast<int>(lengthOf(piece) / 0.5);
      for (int k = 0; k <= parts; ++k) off.push_back(distanceOf(pointAt(piece, static_cast<double>(k) / parts)));
    }
  }
  std::sort(off.begin(), off.end());
  return off[off.size() * 95 / 100];
}

std::size_t closedOf(const std::vector<Path>& paths) {
  return static_cast<std::size_t>(std::count_if(paths.begin(), paths.end(), [](const Path& p) { return p.closed; }));
}

std::vector<Point> endsOf(const std::vector<Path>& paths) {
  std::vector<Point> ends;
  for (const Path& path : paths) {
    if (path.closed) continue;
    ends.push_back(path.start);
    ends.push_back(path.segments.back().end);
  }
  return ends;
}

double nearestOf(const std::vector<Point>& points, Point p) {
  double least = std::numeric_limits<double>::infinity();
  for (const Point q : points) least = std::min(least, distance(p, q));
  return least;
}

/// Strokes hardly longer than the pen is wide, and such as others hide for the most part.
template <typename Add>
void addHidden(const Add& add) {
  const PenStroke bar = straight({{30, 60}, {150, 60}});
  for (const double pen : {14.0, 20.0}) {
    add("an arrow", {straight({{30, 70}, {150, 70}}), straight({{120, 40}, {150, 70}, {120, 100}})}, pen, 2,
        {{30, 70}, {120, 40}, {120, 100}});
    add("a short T", {straight({{75, 30}, {105, 30}}), straight({{90, 30}, {90, 115}})}, pen, 2,
        {{75, 30}, {105, 30}, {90, 115}});
    add("a stub", {bar, straight({{90, 60}, {90, 60 + pen * 0.55}})}, pen, 2,
        {{30, 60}, {150, 60}, {90, 60 + pen * 0.55}});
    add("an H", {straight({{40, 20}, {40, 120}}), straight({{80, 20}, {80, 120}}), straight({{40, 70}, {80, 70}})}, pen,
        3, {{40, 20}, {40, 120}, {80, 20}, {80, 120}});
    add("a bow on a bar", {straight({{140, 15}, {140, 125}}), bow({60, 35}, {140, 105}, 20)}, pen, 2,
        {{140, 15}, {140, 125}});
    add("a circle on a bar", {bar, circle({90, 95}, 35)}, pen, 2, {{30, 60}, {150, 60}});
    add("a drum", drum({90, 92}, 50, 32, 45), pen, 2, {});
  }
}

}  // namespace

Q_DECLARE_METATYPE(Strokes)

class TestStrokes : public QObject {
  Q_OBJECT

 private slots:
  void theWayOfThePenIsFound_data() {
    QTest::addColumn<Strokes>("strokes");
    QTest::addColumn<double>("pen");
    QTest::addColumn<int>("lines");
    QTest::addColumn<QVector<QPointF>>("ends");
    const auto add = [](const char* name, const Strokes& strokes, double pen, int lines, QVector<QPointF> ends) {
      QTest::newRow(qPrintable(QString("%1, %2 px").arg(name).arg(pen))) << strokes << pen << lines << ends;
    };
    for (const double pen : {3.0, 6.0, 12.0, 20.0}) {
      add("a line", {straight({{30.2, 40.7}, {150.3, 90.1}})}, pen, 1, {{30.2, 40.7}, {150.3, 90.1}});
      add("an arc", {arc({90, 40}, 55.5, 0.3, 2.7)}, pen, 1, {});
      add("a curve", {bezier({25, 30}, {60, 160}, {110, -60}, {155, 110})}, pen, 1, {{25, 30}, {155, 110}});
      add("a ring", {circle({90.4, 70.3}, 45)}, pen, 1, {});
      add("two that cross", {straight({{30, 30}, {150, 110}}), straight({{40, 115}, {140, 25}})}, pen, 2,
          {{30, 30}, {150, 110}, {40, 115}, {140, 25}});
      add("a T", {straight({{25, 100}, {155, 105}}), straight({{88, 102.42}, {95, 25}})}, pen, 2,
          {{25, 100}, {155, 105}, {95, 25}, {88, 102.42}});
      add("a corner", {straight({{30, 110}, {50, 35}, {150, 40}})}, pen, 1, {{30, 110}, {150, 40}});
      add("a sharp corner", {straight({{35, 110}, {90, 30}, {125, 115}})}, pen, 1, {{35, 110}, {125, 115}});
      add("a square", {straight({{40, 30}, {130, 30}, {130, 115}, {40, 115}}, true)}, pen, 1, {});
    }
    // Three that meet: two of them are one stroke, it does not matter which.
    const Point middle{90, 70};
    add("a Y", {straight({{30, 110}, middle}), straight({{150, 110}, middle}), straight({{90, 15}, middle})}, 8, 2,
        {{30, 110}, {150, 110}, {90, 15}});
    addHidden(add);
  }
  void theWayOfThePenIsFound() {
    QFETCH(Strokes, strokes);
    QFETCH(double, pen);
    QFETCH(int, lines);
    QFETCH(QVector<QPointF>, ends);
    const cv::Mat grey = penDrawing(180, 140, strokes, pen);
    for (const bool clean : {true, false}) {
      const trace::Tracing got = trace::trace(clean ? pictureOf(grey) : spoiled(grey), centrelines());
      QCOMPARE(got.outlines.size(), static_cast<std::size_t>(lines));
      const double most = clean ? 0.15 : 0.3;
      const double off = off95(got.outlines, [&](Point p) { return distanceToWays(p, strokes); });
      QVERIFY2(off <= most, qPrintable(QString("%1 px off").arg(off)));
      const double missed = missed95(strokes, got.outlines);
      QVERIFY2(missed <= most, qPrintable(QString("%1 px missed").arg(missed)));
      for (const QPointF& end : ends) {
        const double away = nearestOf(endsOf(got.outlines), {end.x(), end.y()});
        QVERIFY2(away <= 0.7, qPrintable(QString("an end is %1 px away").arg(away)));
      }
      const auto closed = std::count_if(strokes.begin(), strokes.end(), [](const PenStroke& s) { return s.closed; });
      QCOMPARE(closedOf(got.outlines), static_cast<std::size_t>(closed));
      QCOMPARE(got.strokes.size(), got.outlines.size());
      for (const StrokeWidth& width : got.strokes)
        QVERIFY2(std::abs(width.usual / pen - 1) < 0.03,
                 qPrintable(QString("%1 px wide, clean %2").arg(width.usual).arg(clean)));
    }
  }

  void tipsWhereThePenRunsBackBesideItselfAreOfItsLine() {
    // They are most of these stars; measured across, they are wider than the pen.
    const Strokes stars{hollowStar({90, 120}, 67.5), hollowStar({180, 60.3}, 37.5), hollowStar({165, 187.5}, 30.6)};
    for (const double pen : {15.0, 18.0, 20.0, 22.0}) {
      const trace::Tracing got = trace::trace(pictureOf(penDrawing(240, 240, stars, pen)), centrelines());
      QCOMPARE(got.outlines.size(), stars.size());
      QCOMPARE(closedOf(got.outlines), stars.size());
      const double off = off95(got.outlines, [&](Point p) { return distanceToWays(p, stars); });
      QVERIFY2(off < 0.3, qPrintable(QString("%1 px off, pen of %2 px").arg(off).arg(pen)));
    }
  }

  void anAsteriskIsItsLines() {
    // Its arms come out of it by half the pen's width; beside it a line tells how wide the pen is.
    const Point middle{60, 60};
    Strokes strokes{straight({{110, 30}, {160, 30}, {160, 100}})};
    for (int k = 0; k < 3; ++k)
      strokes.push_back(straight({onCircle(middle, 20, 0.5 + k * kPi / 3), onCircle(middle, -20, 0.5 + k * kPi / 3)}));
    const trace::Tracing got = trace::trace(pictureOf(penDrawing(180, 130, strokes, 20)), centrelines());
    QCOMPARE(got.outlines.size(), strokes.size());
    const double off = off95(got.outlines, [&](Point p) { return distanceToWays(p, strokes); });
    QVERIFY2(off < 0.3, qPrintable(QString("%1 px off").arg(off)));
    const double missed = missed95(strokes, got.outlines);
    QVERIFY2(missed < 0.5, qPrintable(QString("%1 px missed").arg(missed)));
  }

  void linesAreFewPieces() {
    const trace::Tracing got =
        trace::trace(pictureOf(penDrawing(180, 140, {straight({{30, 40}, {150, 40}})}, 8)), centrelines());
    QCOMPARE(got.outlines.front().segments.size(), 1U);
    const trace::Tracing ring = trace::trace(pictureOf(penDrawing(180, 140, {circle({90, 70}, 45)}, 8)), centrelines());
    QVERIFY(ring.outlines.front().segments.size() <= 4);
  }

  void aDotIsAShortLine() {
    const Strokes dots{straight({{40, 40}, {40.1, 40}}), straight({{100, 40}, {104, 42}})};
    Strokes all = dots;
    for (const bool alone : {true, false}) {
      if (!alone) all.push_back(straight({{20, 65}, {120, 65}}));
      const trace::Tracing got = trace::trace(pictureOf(penDrawing(140, 80, all, 10)), centrelines());
      QCOMPARE(got.outlines.size(), all.size());
      const auto isDot = [&](const Path& path) {
        return !path.closed && pathLength(path) < 6 && distanceToWays(path.start, dots) < 0.7;
      };
      QCOMPARE(std::count_if(got.outlines.begin(), got.outlines.end(), isDot), 2);
    }
  }

  void endsLieAtTheInkWhereThatIsWished() {
    const Strokes line{straight({{30, 40}, {150, 40}})};
    trace::TraceSettings settings = centrelines();
    settings.strokes.ends = trace::StrokeEnds::Ink;
    const trace::Tracing got = trace::trace(pictureOf(penDrawing(180, 80, line, 10)), settings);
    QVERIFY(nearestOf(endsOf(got.outlines), {25, 40}) < 0.3);
    QVERIFY(nearestOf(endsOf(got.outlines), {155, 40}) < 0.3);
  }

  void breaksHeal() {
    // A ring broken twice, and a line with a speck of white in it.
    const Point centre{80, 80};
    const Strokes broken{arc(centre, 50, 0.15, 3.0), arc(centre, 50, 3.3, 6.1), straight({{160, 40}, {200, 60}}),
                         straight({{214, 67}, {250, 85}})};
    const cv::Mat grey = penDrawing(280, 160, broken, 6);
    QCOMPARE(trace::trace(pictureOf(grey), centrelines()).outlines.size(), 4U);
    trace::TraceSettings settings = centrelines();
    settings.strokes.healPx = 12;
    const trace::Tracing got = trace::trace(pictureOf(grey), settings);
    QCOMPARE(got.outlines.size(), 2U);
    QCOMPARE(closedOf(got.outlines), 1U);
    const double off = off95(got.outlines, [&](Point p) {
      return std::min(std::abs(distance(p, centre) - 50), distanceToWays(p, {straight({{160, 40}, {250, 85}})}));
    });
    QVERIFY2(off < 0.3, qPrintable(QString::number(off)));
  }

  void endsThatDoNotPointAtEachOtherStay() {
    const Strokes apart{straight({{30, 40}, {80, 40}}), straight({{88, 48}, {88, 100}}),
                        straight({{100, 40}, {150, 60}}), straight({{100, 50}, {150, 70}})};
    trace::TraceSettings settings = centrelines();
    settings.strokes.healPx = 12;
    QCOMPARE(trace::trace(pictureOf(penDrawing(180, 140, apart, 5)), settings).outlines.size(), 4U);
  }

  void wideInkKeepsItsBorders() {
    // A disc with a line that runs into it, and one that crosses it.
    const Strokes lines{straight({{100, 80}, {230, 120}}), straight({{160, 40}, {200, 150}})};
    cv::Mat grey = penDrawing(260, 180, lines, 6);
    const cv::Mat solid = drawn(260, 180, disc(80, 100, 40));
    grey = cv::min(grey, solid);
    trace::TraceSettings settings;
    settings.method = trace::TraceMethod::Mixed;
    for (const std::optional<double> limit : {std::optional<double>(), std::optional<double>(12)}) {
      settings.strokes.limitPx = limit;
      const trace::Tracing got = trace::trace(pictureOf(grey), settings);
      QCOMPARE(got.layers.size(), 2U);
      QCOMPARE(got.outlines.size(), 3U);
      QCOMPARE(closedOf(got.outlines), 1U);
      for (std::size_t i = 0; i < got.outlines.size(); ++i) {
        const Path& path = got.outlines[i];
        QCOMPARE(got.layerOf[i], path.closed ? 1U : 0U);
        QCOMPARE(got.strokes[i].usual > 0, !path.closed);
        const double off = off95({path}, [&](Point p) {
          return path.closed ? std::abs(distance(p, {80, 80}) - 40) : distanceToWays(p, lines);
        });
        QVERIFY2(off < 0.3, qPrintable(QString::number(off)));
      }
      // The line ends on the disc's border.
      const std::vector<Point> ends = endsOf(got.outlines);
      const double gap = std::abs(nearestOf(ends, {80, 80}) - 40);
      QVERIFY2(gap < 0.5, qPrintable(QString::number(gap)));
    }
  }

  void ringsRoundOneMiddleAreConcentric() {
    const Strokes rings{circle({90.02, 70}, 45), circle({90, 70.03}, 30)};
    const trace::Tracing got = trace::trace(pictureOf(penDrawing(180, 140, rings, 6)), centrelines());
    QCOMPARE(got.outlines.size(), 2U);
    const auto middle = [](const Path& ring) { return lerp(ring.segments[0].end, ring.segments[1].end, 0.5); };
    for (const Path& ring : got.outlines) QCOMPARE(ring.segments.size(), 2U);
    QVERIFY(distance(middle(got.outlines[0]), middle(got.outlines[1])) < 1e-9);
    trace::TraceSettings loose = centrelines();
    loose.rules.concentric = false;
    const trace::Tracing apart = trace::trace(pictureOf(penDrawing(180, 140, rings, 6)), loose);
    QVERIFY(distance(middle(apart.outlines[0]), middle(apart.outlines[1])) > 1e-6);
  }

  /// Whatever its width, a part is what somebody says: the disc a line, the line an area, twice is not at all.
  void singlePartsAreSwitched() {
    const Strokes lines{straight({{100, 80}, {230, 120}}), straight({{160, 40}, {200, 150}})};
    const cv::Mat grey = cv::min(penDrawing(260, 180, lines, 6), drawn(260, 180, disc(80, 100, 40)));
    trace::TraceSettings settings;
    settings.method = trace::TraceMethod::Mixed;
    settings.strokes.limitPx = 12;
    const auto areasOf = [](const trace::Tracing& t) { return std::count(t.layerOf.begin(), t.layerOf.end(), 1U); };
    const trace::Tracing usual = trace::trace(pictureOf(grey), settings);
    QCOMPARE(areasOf(usual), 1);
    // A piece of the line that crosses the other, below it.
    const Point onLine{170, 67.5};
    settings.strokes.switched = {{onLine}};
    const trace::Tracing more = trace::trace(pictureOf(grey), settings);
    QCOMPARE(areasOf(more), 2);
    bool found = false;
    for (std::size_t i = 0; i < more.outlines.size(); ++i) {
      if (more.layerOf[i] != 1 || !rim::PointInPolygon(more.outlines[i]).has(onLine)) continue;
      found = true;
      // 6 px wide, and no longer than the piece up to where the lines cross, and its tip.
      const Box box = boxOf(more.outlines[i]);
      QVERIFY2(box.height() > 40 && box.height() < 75, qPrintable(QString::number(box.height())));
      const double area = std::abs(signedArea(more.outlines[i]));
      QVERIFY2(std::abs(area / std::hypot(box.height(), box.width() - 4) - 6) < 1, qPrintable(QString::number(area)));
    }
    QVERIFY(found);
    settings.strokes.switched = {{onLine}, {{168, 62}}};
    QVERIFY(trace::trace(pictureOf(grey), settings).outlines == usual.outlines);
    // Beside all ink nothing is meant.
    settings.strokes.switched = {{{20, 20}}};
    QVERIFY(trace::trace(pictureOf(grey), settings).outlines == usual.outlines);
    // The disc as a dot: no area is left, and its ink is drawn once.
    settings.strokes.switched = {{{80, 80}}};
    const trace::Tracing none = trace::trace(pictureOf(grey), settings);
    QCOMPARE(areasOf(none), 0);
    QVERIFY(none.outlines.size() >= 2);
    // All that hangs together: one area, as its border alone would be.
    settings.strokes.switched = {{onLine, true}};
    const trace::Tracing whole = trace::trace(pictureOf(grey), settings);
    QCOMPARE(areasOf(whole), static_cast<std::ptrdiff_t>(whole.outlines.size()));
    const trace::Tracing plain = trace::trace(pictureOf(grey), {});
    double inside = 0;
    for (const Path& path : whole.outlines) inside += signedArea(path);
    for (const Path& path : plain.outlines) inside -= signedArea(path);
    QVERIFY2(std::abs(inside) < 60, qPrintable(QString::number(inside)));
  }

  /// Its corners and its stem, too, which is nobody's track.
  void aWholeLetterIsAnArea() {
    const std::vector<Point> letter{{40, 40},   {120, 40}, {120, 60}, {60, 60},   {60, 80},   {115, 80},
                                    {115, 100}, {60, 100}, {60, 122}, {122, 122}, {122, 142}, {40, 142}};
    const cv::Mat grey =
        cv::min(drawn(200, 180, polygon(letter)), penDrawing(200, 180, {straight({{150, 30}, {150, 150}})}, 20));
    trace::TraceSettings settings;
    settings.method = trace::TraceMethod::Mixed;
    settings.strokes.limitPx = 40;
    settings.strokes.switched = {{{50, 90}, true}};
    const trace::Tracing got = trace::trace(pictureOf(grey), settings);
    QCOMPARE(got.outlines.size(), 2U);
    const std::size_t area = got.layerOf[0] == 1 ? 0 : 1;
    QCOMPARE(got.layerOf[1 - area], 0U);
    const double off = signedArea(got.outlines[area]) / std::abs(signedArea(polygonThrough(letter))) - 1;
    QVERIFY2(std::abs(off) < 0.005, qPrintable(QString::number(off)));
    QVERIFY(got.outlines[area].segments.size() <= letter.size() + 2);
  }

  void onePenAloneHasNoAreas() {
    trace::TraceSettings settings;
    settings.method = trace::TraceMethod::Mixed;
    const trace::Tracing got = trace::trace(pictureOf(penDrawing(180, 140, {circle({90, 70}, 45)}, 8)), settings);
    QCOMPARE(got.outlines.size(), 1U);
    QCOMPARE(got.layerOf.front(), 0U);
  }

  void oddPicturesComeToSomething_data() {
    QTest::addColumn<picture::Picture>("picture");
    QTest::newRow("noise") << pictureOf(randomGrey(120, 90, 3));
    QTest::newRow("black") << pictureOf(cv::Mat(90, 120, CV_8UC1, cv::Scalar(0)));
    QTest::newRow("white") << pictureOf(cv::Mat(90, 120, CV_8UC1, cv::Scalar(255)));
    QTest::newRow("a black rectangle") << pictureOf(
        drawn(120, 90, polygon({{20, 20}, {100, 20}, {100, 70}, {20, 70}})));
    QTest::newRow("one pixel") << pictureOf(cv::Mat(1, 1, CV_8UC1, cv::Scalar(0)));
  }
  void oddPicturesComeToSomething() {
    QFETCH(picture::Picture, picture);
    for (const trace::TraceMethod method : {trace::TraceMethod::Centreline, trace::TraceMethod::Mixed}) {
      trace::TraceSettings settings;
      settings.method = method;
      settings.strokes.healPx = 5;
      const trace::Tracing got = trace::trace(picture, settings);
      for (const Path& path : got.outlines) {
        QVERIFY(!path.segments.empty());
        const Box box = boxOf(path);
        QVERIFY(std::isfinite(box.width() + box.height()));
        QVERIFY(box.low.x > -5 && box.low.y > -5 && box.high.x < picture.width() + 5 &&
                box.high.y < picture.height() + 5);
      }
    }
  }

  void itCanBeStopped() {
    std::stop_source stop;
    stop.request_stop();
    QVERIFY_THROWS_EXCEPTION(Cancelled, trace::trace(pictureOf(penDrawing(180, 140, {circle({90, 70}, 45)}, 8)),
                                                     centrelines(), {stop.get_token(), {}}));
  }
};

RIM_TEST(TestStrokes)
#include "tst_strokes.moc"
