#include <QTest>

#include "app/bench/furniture.h"
#include "app/bench/scene.h"
#include "app/bench/viewport.h"
#include "support/test_list.h"

using namespace rim;
using namespace rim::app;

class TestViewport : public QObject {
  Q_OBJECT

 private slots:
  void theExampleOfItsHeaderHolds() { QCOMPARE((Viewport{2, {100, 500}}.toScreen({10, 20})), QPointF(120, 460)); }

  void thereAndBackIsTheSamePlace() {
    const Viewport v{3.7, {-20, 311}};
    const Point p = v.toPicture(v.toScreen({12.5, -7}));
    QVERIFY(distance(p, {12.5, -7}) < 1e-9);
    QCOMPARE(v.transform().map(QPointF(12.5, -7)), v.toScreen({12.5, -7}));
  }

  void zoomingKeepsThePlaceUnderThePointer() {
    const Viewport v{2, {100, 500}};
    const QPointF pointer(333, 222);
    const Viewport nearer = v.zoomedAt(pointer, 1.7);
    QVERIFY(distance(v.toPicture(pointer), nearer.toPicture(pointer)) < 1e-9);
    QCOMPARE(nearer.scale, 3.4);
  }

  void zoomingHasItsLimits() {
    QCOMPARE((Viewport{1, {}}.zoomedAt({}, 1e9).scale), Viewport::kLargestScale);
    QCOMPARE((Viewport{1, {}}.zoomedAt({}, 1e-9).scale), Viewport::kSmallestScale);
  }

  void fittingShowsAllInTheMiddle() {
    Box box;
    box.include(Point{0, 0});
    box.include(Point{400, 100});
    const Viewport v = Viewport::fitting(box, {10, 20, 200, 300});
    QCOMPARE(v.scale, 0.5);
    QCOMPARE(v.toScreen({200, 50}), QPointF(110, 170));
  }

  void theScaleBarIsARoundLengthThatFits_data() {
    QTest::addColumn<double>("pxPerMm");
    QTest::addColumn<bool>("inches");
    QTest::addColumn<QString>("text");
    QTest::newRow("10 px per mm") << 10.0 << false << "10 mm";
    QTest::newRow("1 px per mm") << 1.0 << false << "100 mm";
    QTest::newRow("1000 px per mm") << 1000.0 << false << "0.1 mm";
    QTest::newRow("inches") << 10.0 << true << "0.5 in";
  }
  void theScaleBarIsARoundLengthThatFits() {
    QFETCH(double, pxPerMm);
    QFETCH(bool, inches);
    QFETCH(QString, text);
    const ScaleBar bar = scaleBarFor(pxPerMm, 130, inches ? Unit::Inch : Unit::Millimetre);
    QCOMPARE(bar.text, text);
    QVERIFY(bar.screenPx <= 130 && bar.screenPx > 130 / 2.6);
  }

  void withoutAScaleThereIsNoBar() { QCOMPARE(scaleBarFor(0, 130, Unit::Millimetre).screenPx, 0.0); }

  /// What was begun and is not wanted any more is never shown.
  void aSceneThatIsPaintedAtOnceIsNotOvertaken() {
    Scene scene;
    const Scene::Wish wish{{}, {60, 40}, 1, Qt::white};
    const auto fill = [](QColor colour) -> Scene::Step {
      return [colour](QPainter& painter, const Viewport&, const QRectF& visible) { painter.fillRect(visible, colour); };
    };
    const auto shown = [&scene] {
      QImage image(60, 40, QImage::Format_RGB32);
      QPainter painter(&image);
      scene.show(painter, {});
      painter.end();
      return image.pixelColor(30, 20);
    };
    scene.paintNow({fill(Qt::red)}, wish);
    scene.outdate();
    scene.begin({fill(Qt::green), fill(Qt::green)}, wish);
    QVERIFY(scene.works());
    QCOMPARE(shown(), QColor(Qt::red));
    scene.paintNow({fill(Qt::blue)}, wish);
    QVERIFY(!scene.works() && !scene.work(1));
    QCOMPARE(shown(), QColor(Qt::blue));
    QVERIFY(scene.isCurrent(wish));
    scene.outdate();
    scene.begin({fill(Qt::green)}, wish);
    QVERIFY(scene.work(1000));
    QCOMPARE(shown(), QColor(Qt::green));
    scene.outdate();
    scene.begin({fill(Qt::red), fill(Qt::red)}, wish);
    scene.forget();
    QVERIFY(!scene.work(1000) && !scene.canStandIn(wish));
  }
};

RIM_TEST(TestViewport)
#include "tst_viewport.moc"
