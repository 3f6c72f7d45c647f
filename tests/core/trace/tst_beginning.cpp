// Where a closed border happens to begin is nobody's business: its outline is the same. Of a circle it may be anywhere.

#include <QTest>
#include <numbers>
#include <opencv2/imgproc.hpp>

#include "core/geometry/path_place.h"
#include "core/trace/contour/sharpen.h"
#include "core/trace/outline/fit_outline.h"
#include "core/trace/trace.h"
#include "support/artwork.h"
#include "support/measure.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

constexpr int kSize = 200;
constexpr trace::contour::TwoTone kTone{128, false};

/// A half disc on a rectangle: lines that go over into an arc, and two corners.
bool counterOfP(double x, double y) {
  if (std::hypot(x - 110.3, y - 99.6) < 48.2 && x >= 110.3) return true;
  return x > 60.4 && x < 110.31 && std::abs(y - 99.6) < 48.2;
}

/// A ring's outer border with a notch.
bool notched(double x, double y) {
  return std::hypot(x - 100.2, y - 99.4) < 80 && !(x > 165 && std::abs(y - 100) < 6.3);
}

/// A leaf of two arcs.
bool leaf(double x, double y) { return std::hypot(x - 60.2, y - 100) < 90 && std::hypot(x - 141.3, y - 100) < 90; }

trace::contour::Border sharpBorder(const Inside& inside) {
  const cv::Mat grey = drawn(kSize, kSize, inside);
  const std::vector<trace::contour::Border> borders = trace::contour::followBorders(grey, kTone, 4);
  return trace::contour::sharpenBorder(grey, kTone, trace::contour::EdgeLevel::Coverage, borders.at(0));
}

trace::contour::Border begunAt(const trace::contour::Border& border, std::size_t first) {
  trace::contour::Border turned = border;
  std::rotate(turned.begin(), turned.begin() + static_cast<std::ptrdiff_t>(first), turned.end());
  return turned;
}

double farthest(const trace::contour::Border& border, const Path& path) {
  double most = 0;
  for (const Point p : border) most = std::max(most, nearestOn(path, p).off);
  return most;
}

}  // namespace

class TestBeginning : public QObject {
  Q_OBJECT

 private slots:
  void anOutlineIsTheSameWhereverItsBorderBegins_data() {
    QTest::addColumn<int>("figure");
    QTest::addColumn<int>("lines");
    QTest::addColumn<int>("most");  // segments
    QTest::newRow("the counter of a P") << 0 << 3 << 6;
    QTest::newRow("a notched disc") << 1 << 3 << 9;
    QTest::newRow("a leaf") << 2 << 0 << 4;
    QTest::newRow("a star") << 3 << 14 << 14;
  }

  void anOutlineIsTheSameWhereverItsBorderBegins() {
    QFETCH(int, figure);
    QFETCH(int, lines);
    QFETCH(int, most);
    const Inside figures[] = {counterOfP, notched, leaf, polygon(starCorners(100, 100, 7, 85, 40, 0.1))};
    const trace::contour::Border border = sharpBorder(figures[figure]);
    for (std::size_t first = 0; first < border.size(); first += 7) {
      const Path path = trace::outline::fitOutline(begunAt(border, first), {});
      const Counts counts = countsOf(Paths(path));
      const QByteArray said = QString("begun at %1: %2 lines, %3 arcs, %4 curves, %5 px off")
                                  .arg(first)
                                  .arg(counts.lines)
                                  .arg(counts.arcs)
                                  .arg(counts.curves)
                                  .arg(farthest(border, path))
                                  .toUtf8();
      QVERIFY2(path.closed && counts.lines == static_cast<std::size_t>(lines), said.constData());
      QVERIFY2(path.segments.size() <= static_cast<std::size_t>(most), said.constData());
      // What pixels round off at corners lies within the outline.
      QVERIFY2(farthest(border, path) < 0.8, said.constData());
    }
  }

  /// Blurred, noisy and pressed hard: no reason to keep every point of a circle.
  void aCircleInAPoorPictureIsNoPolyline() {
    for (const double radius : {40.0, 56.2, 64.3}) {
      cv::Mat grey;
      cv::GaussianBlur(drawn(kSize, kSize, disc(100.2, 99.7, radius)), grey, {}, 1.2);
      const trace::Tracing tracing = trace::trace(asJpeg(pictureOf(noisy(grey, 20)), 30), {});
      QCOMPARE(tracing.outlines.size(), 1U);
      const std::size_t segments = tracing.outlines[0].segments.size();
      QVERIFY2(segments <= 8, qPrintable(QString("%1 px: %2").arg(radius).arg(segments)));
      QVERIFY(std::abs(signedArea(tracing.outlines[0]) / (std::numbers::pi * radius * radius) - 1) < 0.01);
    }
  }
};

RIM_TEST(TestBeginning)
#include "tst_beginning.moc"
