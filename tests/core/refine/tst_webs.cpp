#include <QtTest>
#include <random>

#include "core/geometry/segment.h"
#include "core/refine/edit/place.h"
#include "core/refine/measure/webs.h"
#include "support/drawings.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;

namespace {

Path rectangle(double x, double y, double w, double h) {
  return polygonThrough({{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}});
}

QString of(const std::optional<refine::Across>& across) {
  return across ? QString::number(across->mm, 'f', 4) : QString("none");
}

QString thin(std::vector<Path> paths) {
  const refine::ThinPlaces found = refine::thinPlaces(makeDrawing(std::move(paths)));
  return "web " + of(found.web) + ", gap " + of(found.gap);
}

}  // namespace

class TestWebs : public QObject {
  Q_OBJECT

 private slots:
  void knownShapesHaveTheirWebsAndGaps() {
    QCOMPARE(thin({circlePath({0, 0}, 5)}), QString("web 10.0000, gap none"));
    QCOMPARE(thin({rectangle(0, 0, 30, 4)}), QString("web 4.0000, gap none"));
    QCOMPARE(thin({rectangle(0, 0, 30, 20), circlePath({6, 10}, 5)}), QString("web 1.0000, gap 10.0000"));
    QCOMPARE(thin({circlePath({0, 0}, 5), circlePath({12, 0}, 5)}), QString("web 10.0000, gap 2.0000"));
    QCOMPARE(thin({circlePath({0, 0}, 20), circlePath({3, 0}, 10)}), QString("web 7.0000, gap 20.0000"));
    // A ring: everywhere alike.
    QCOMPARE(thin({circlePath({0, 0}, 20), circlePath({0, 0}, 17)}), QString("web 3.0000, gap 34.0000"));
    // Two rectangles corner to corner.
    QCOMPARE(thin({rectangle(0, 0, 10, 10), rectangle(13, 14, 10, 10)}), QString("web 10.0000, gap 5.0000"));
    // A notch whose tip comes near to the other side.
    QCOMPARE(thin({polygonThrough({{0, 0}, {40, 0}, {40, 10}, {22, 10}, {20, 1.5}, {18, 10}, {0, 10}})}).left(10),
             QString("web 1.5000"));
    // A line and a disc.
    QCOMPARE(thin({rectangle(0, 0, 30, 5), circlePath({10, 12.5}, 7)}), QString("web 5.0000, gap 0.5000"));
    // An ellipse is thinnest along its short axis, though the way across is no shortest one nearby.
    const double k = 0.5522847498;
    const Path ellipse{
        {20, 0},
        {Segment::cubic({20, 8 * k}, {20 * k, 8}, {0, 8}), Segment::cubic({-20 * k, 8}, {-20, 8 * k}, {-20, 0}),
         Segment::cubic({-20, -8 * k}, {-20 * k, -8}, {0, -8}), Segment::cubic({20 * k, -8}, {20, -8 * k}, {20, 0})},
        true};
    const refine::ThinPlaces found = refine::thinPlaces(makeDrawing({ellipse}));
    QVERIFY2(found.web && std::abs(found.web->mm - 16) < 0.01, qPrintable(of(found.web)));
    QVERIFY(!refine::thinPlaces(Drawing{}).web &&
            !refine::thinPlaces(makeDrawing({{{0, 0}, {Segment::line({9, 9})}, false}})).gap);
  }

  void theyAreTheSameHoweverItIsTurned() {
    const Drawing drawing = makeDrawing({rectangle(0, 0, 60, 40), circlePath({12, 12}, 9), circlePath({34, 20}, 11),
                                         polygonThrough({{50, 5}, {57, 5}, {57, 35}, {52, 20}})});
    const refine::ThinPlaces first = refine::thinPlaces(drawing);
    for (const double turn : {10.0, 33.3, 90.0, 211.0}) {
      const refine::ThinPlaces turned = refine::thinPlaces(refine::rotated(drawing, turn));
      QVERIFY(std::abs(turned.web->mm - first.web->mm) < 1e-6);
      QVERIFY(std::abs(turned.gap->mm - first.gap->mm) < 1e-6);
    }
  }

  /// Whatever the drawing: no way that is square, free and in material is shorter than the one that was found, looked
  /// for from many places along the normals there.
  void nothingShorterIsFoundByLooking() {
    for (unsigned seed = 1; seed <= 8; ++seed) {
      std::mt19937 random(seed);
      const Drawing drawing = plate(random);
      const refine::ThinPlaces found = refine::thinPlaces(drawing);
      QVERIFY(found.web && found.gap);
      double least = 1e9;
      for (std::size_t a = 0; a < drawing.outlines.size(); ++a) {
        for (std::size_t b = a + 1; b < drawing.outlines.size(); ++b) {
          for (std::size_t i = 0; i < drawing.path(a).segments.size(); ++i) {
            for (int k = 0; k <= 40; ++k) {
              const Point p = pointAt(pieceOf(drawing.path(a), i), k / 40.0);
              for (std::size_t j = 0; j < drawing.path(b).segments.size(); ++j)
                least = std::min(least, distanceTo(pieceOf(drawing.path(b), j), p));
            }
          }
        }
      }
      // The nearest two outlines come together is a way across, in material or not.
      const double ours = std::min(found.web->mm, found.gap->mm);
      QVERIFY2(ours <= least + 1e-6, qPrintable(QString("%1 %2 %3").arg(seed).arg(ours).arg(least)));
    }
  }
};

RIM_TEST(TestWebs)
#include "tst_webs.moc"
