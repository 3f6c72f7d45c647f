// The sizes of exact shapes, and the same shapes of a size that was typed.

#include <QTest>
#include <numbers>

#include "core/error.h"
#include "core/geometry/affine.h"
#include "core/geometry/circle.h"
#include "core/refine/edit/shapes.h"
#include "core/refine/propose/exact_shapes.h"
#include "core/refine/propose/shape_size.h"
#include "support/artwork.h"
#include "support/spoil.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::test;
using refine::ShapeSize;
using refine::TrueUpKind;

namespace {

Path turnedBy(const Path& path, double degrees) {
  return transformed(path, about({20, 30}, rotation(degrees * std::numbers::pi / 180)), 1e-9);
}

Point middleOf(const Path& path) {
  const Box box = boxOf(path);
  return lerp(box.low, box.high, 0.5);
}

bool isNear(const std::optional<ShapeSize>& size, double wide, double high) {
  return size && std::abs(size->wide - wide) < 1e-6 && std::abs(size->high - high) < 1e-6;
}

}  // namespace

class TestShapeSize : public QObject {
  Q_OBJECT

 private slots:
  void ofBoxes_data() {
    QTest::addColumn<int>("kind");
    QTest::addColumn<double>("radius");
    QTest::addColumn<double>("degrees");
    for (const double degrees : {0.0, 20.0, -35.0}) {
      QTest::addRow("rectangle at %g", degrees) << int(TrueUpKind::Rectangle) << 0.0 << degrees;
      QTest::addRow("round at %g", degrees) << int(TrueUpKind::RoundedRectangle) << 2.0 << degrees;
      QTest::addRow("slot at %g", degrees) << int(TrueUpKind::Slot) << 5.0 << degrees;
    }
  }
  /// Turned shapes are measured, and made, along their own sides; the middle stays, and so does the way they run.
  void ofBoxes() {
    QFETCH(int, kind);
    QFETCH(double, radius);
    QFETCH(double, degrees);
    const auto is = static_cast<TrueUpKind>(kind);
    const Path level = refine::roundedBox({{0, 0}, {30, 10}}, radius);
    for (const Path& path : {turnedBy(level, degrees), reversed(turnedBy(level, degrees))}) {
      QVERIFY(isNear(refine::sizeOf(is, path), 30, 10));
      const Path other = refine::withSize(is, path, {40, 12, false});
      QVERIFY(isNear(refine::sizeOf(is, other), 40, 12));
      QVERIFY(distance(middleOf(other), middleOf(path)) < 1e-6);
      QVERIFY(signedArea(other) * signedArea(path) > 0);
      const double r = is == TrueUpKind::Slot ? 6 : radius;
      QVERIFY(std::abs(std::abs(signedArea(other)) - (40 * 12 - (4 - std::numbers::pi) * r * r)) < 1e-6);
      QVERIFY(refine::apartBy(refine::withSize(is, path, *refine::sizeOf(is, path)), path).mm < 1e-6);
    }
  }

  void ofRoundOnes() {
    const Path circle = circlePath({7, 8}, 5);
    QVERIFY(isNear(refine::sizeOf(TrueUpKind::Circle, circle), 10, 10));
    const auto made = circleOf(refine::withSize(TrueUpKind::Circle, circle, {6, 99, true}));
    QVERIFY(made && std::abs(made->radius - 3) < 1e-9 && distance(made->centre, {7, 8}) < 1e-9);
    const Path hexagon =
        turnedBy(refine::shapeBetween({refine::ShapeKind::Polygon, 6, 0, 0.5}, {0, 0}, {10, 0}, 1e-4), 9);
    QVERIFY(isNear(refine::sizeOf(TrueUpKind::Polygon, hexagon), 20, 20));
    QVERIFY(isNear(refine::sizeOf(TrueUpKind::Polygon, refine::withSize(TrueUpKind::Polygon, hexagon, {8, 8, true})), 8,
                   8));
    std::vector<Point> egg;
    for (int i = 0; i < 90; ++i) {
      const double a = 2 * std::numbers::pi * i / 90;
      egg.push_back({20 + 12 * std::cos(a), 30 + 7 * std::sin(a)});
    }
    const auto ellipse = refine::exactShapeOf(turnedBy(polygonThrough(egg), 25), {TrueUpKind::Ellipse}, 0.3);
    QVERIFY(ellipse.has_value());
    const auto size = refine::sizeOf(TrueUpKind::Ellipse, ellipse->path);
    QVERIFY2(size && std::abs(size->wide - 24) < 0.05 && std::abs(size->high - 14) < 0.05,
             qPrintable(QString("%1 x %2").arg(size->wide).arg(size->high)));
    const Path other = refine::withSize(TrueUpKind::Ellipse, ellipse->path, {30, 10, false});
    QVERIFY(std::abs(std::abs(signedArea(other)) - std::numbers::pi * 15 * 5) < 0.05);
  }

  void whatCannotBeIsTold() {
    const Path slot = refine::roundedBox({{0, 0}, {30, 10}}, 5);
    const Path round = refine::roundedBox({{0, 0}, {30, 10}}, 4);
    QVERIFY_THROWS_EXCEPTION(InputError, refine::withSize(TrueUpKind::Slot, slot, {9, 10, false}));
    QVERIFY_THROWS_EXCEPTION(InputError, refine::withSize(TrueUpKind::Slot, slot, {10, 10, false}));
    QVERIFY_THROWS_EXCEPTION(InputError, refine::withSize(TrueUpKind::RoundedRectangle, round, {30, 7, false}));
    QVERIFY_THROWS_EXCEPTION(InputError, refine::withSize(TrueUpKind::Rectangle, round, {0, 7, false}));
    QVERIFY_THROWS_EXCEPTION(InputError, refine::withSize(TrueUpKind::Rectangle, round, {std::nan(""), 7, false}));
    QVERIFY(!refine::sizeOf(TrueUpKind::Level, round) && !refine::sizeOf(TrueUpKind::Circle, Path{}));
    QVERIFY(refine::nearlyOneSize({10, 5, false}, {10.5, 5.2, false}));
    QVERIFY(!refine::nearlyOneSize({10, 5, false}, {10.5, 6, false}));
  }
};

RIM_TEST(TestShapeSize)
#include "tst_shape_size.moc"
