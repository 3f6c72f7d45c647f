// Fewer nodes: never more lines than Douglas and Peucker's method at the same bound, and far fewer pieces with curves.

#include <QTest>
#include <random>

#include "core/geometry/fewer_points.h"
#include "core/geometry/flatten.h"
#include "core/geometry/path_place.h"
#include "core/geometry/segment.h"
#include "core/mend/repair/simplify.h"
#include "core/trace/trace.h"
#include "support/pictures.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

/// How many lines the method makes of a closed path, begun at the place farthest from its middle.
std::size_t linesByDouglasAndPeucker(const Path& path, double within) {
  // Chords leave a fiftieth of the bound, the lines through them the rest.
  constexpr double kChords = 0.02;
  std::vector<Point> points = flatten(path, within * kChords);
  const Point middle = lerp(boxOf(path).low, boxOf(path).high, 0.5);
  const auto far = std::max_element(points.begin(), points.end(),
                                    [middle](Point a, Point b) { return distance(a, middle) < distance(b, middle); });
  std::rotate(points.begin(), far, points.end());
  points.push_back(points.front());
  return fewerPoints(points, within * (1 - kChords)).size() - 1;
}

double farthestFrom(const Path& a, const Path& b) {
  double most = 0;
  for (std::size_t i = 0; i < a.segments.size(); ++i) {
    for (int k = 0; k < 24; ++k) most = std::max(most, nearestOn(b, pointAt(pieceOf(a, i), k / 24.0)).off);
  }
  return most;
}

/// Outlines of random blobs and stars, traced.
std::vector<Path> traced() {
  std::vector<Path> all;
  std::mt19937 random(21);
  for (int i = 0; i < 6; ++i) {
    const int tips = 3 + static_cast<int>(random() % 9);
    const double deep = 0.3 + 0.06 * static_cast<double>(random() % 10);
    const double turn = 0.1 * static_cast<double>(random() % 60);
    const bool round = i % 2 == 0;
    const cv::Mat grey = drawn(160, 160, [&](double x, double y) {
      const double angle = std::atan2(y - 80, x - 80) + turn;
      const double wave =
          round ? (1 + std::cos(tips * angle)) / 2 : std::abs(std::remainder(tips * angle, 2 * M_PI)) / M_PI;
      return std::hypot(x - 80, y - 80) < 66 * (deep + (1 - deep) * wave);
    });
    for (const Path& path : trace::trace(pictureOf(grey), {}).outlines) all.push_back(path);
  }
  return all;
}

}  // namespace

class TestFewest : public QObject {
  Q_OBJECT

 private slots:
  void neverMoreThanThePublishedMethod() {
    std::size_t lines = 0;
    std::size_t published = 0;
    std::size_t curves = 0;
    for (const Path& path : traced()) {
      for (const double within : {0.1, 0.3, 1.0, 3.0}) {
        const Path few = mend::simplified(path, within, CurveForm::Lines);
        const std::size_t theirs = linesByDouglasAndPeucker(path, within);
        QVERIFY2(few.segments.size() <= theirs,
                 qPrintable(QStringLiteral("%1 against %2 at %3").arg(few.segments.size()).arg(theirs).arg(within)));
        QVERIFY(farthestFrom(path, few) <= within * 1.001 && farthestFrom(few, path) <= within * 1.001);
        lines += few.segments.size();
        published += theirs;
        const Path curved = mend::simplified(path, within, CurveForm::Beziers);
        QVERIFY(farthestFrom(path, curved) <= within * 1.001 && farthestFrom(curved, path) <= within * 1.001);
        curves += curved.segments.size();
      }
    }
    qInfo("%zu lines, %zu by the published method, %zu with curves", lines, published, curves);
    QVERIFY(2 * curves <= published);
  }
};

RIM_TEST(TestFewest)
#include "tst_fewest.moc"
