// Rooms and layers: each step has its place in the window, and what a room lays on the bench is painted, pressed and
// gone in its turn.

#include <QMenuBar>
#include <QPainter>
#include <QStackedWidget>

#include "app/bench/bench_layer.h"
#include "support/test_list.h"
#include "window_fixture.h"

using namespace rim::app;
using namespace rim::test;

namespace {

/// A disc on the bench that notes what happens to it.
class DiscLayer : public BenchLayer {
 public:
  DiscLayer(Level level, const QColor& colour) : BenchLayer(level), colour_(colour) {}

  void paint(QPainter& painter, const LayerView& view, std::size_t /*part*/) const override {
    painter.setPen(Qt::NoPen);
    painter.setBrush(colour_);
    painter.drawEllipse(view.at.toScreen(place), kRadius, kRadius);
  }
  bool press(QPointF screen, const LayerView& view) override {
    const QPointF off = screen - view.at.toScreen(place);
    held = std::hypot(off.x(), off.y()) < kRadius;
    return held;
  }
  void drag(QPointF screen, const LayerView& view) override {
    place = view.at.toPicture(screen);
    emit changed();
  }
  void release() override { held = false; }
  void letGo() override { letGoes += 1; }
  rim::Box extent() const override { return wanted; }

  static constexpr double kRadius = 12;
  rim::Point place{160, 160};
  rim::Box wanted;
  bool held = false;
  int letGoes = 0;

 private:
  QColor colour_;
};

struct BenchWithBadge {
  BenchWithBadge() { opened = f.open(demoFile("badge.png")); }
  QPoint screen(rim::Point place) { return f.window->bench().viewport().toScreen(place).toPoint(); }
  QColor at(rim::Point place) { return f.window->bench().grab().toImage().pixelColor(screen(place)); }

  WindowFixture f;
  bool opened = false;
};

}  // namespace

class TestRooms : public QObject {
  Q_OBJECT

 private slots:
  void everyStepHasCardPanelAndMenu() {
    WindowFixture f;
    QVERIFY(f.open(demoFile("badge.png")));
    const auto* panels = f.find<QStackedWidget>("panel");
    QStringList menus;
    for (const QAction* menu : f.window->menuBar()->actions()) menus << menu->text().remove('&');
    for (const char* name : {"Picture", "Colours", "Trace", "Mend", "Refine", "Export"}) {
      QCOMPARE(menus.count(name), 1);
    }
    for (const Step step : {Step::Export, Step::Picture, Step::Refine, Step::Colours, Step::Mend, Step::Trace}) {
      f.window->showStep(step);
      QCOMPARE(panels->currentIndex(), static_cast<int>(step));
    }
  }

  void menusCanBeToldApartByTheirLetters() {
    const WindowFixture f;
    QStringList letters;
    for (const QAction* menu : f.window->menuBar()->actions()) {
      const QString letter = menu->text().section('&', 1, 1).left(1).toLower();
      QVERIFY2(!letter.isEmpty() && !letters.contains(letter), qPrintable(menu->text()));
      letters << letter;
    }
  }

  void layersLieInTheirOrder() {
    BenchWithBadge b;
    QVERIFY(b.opened);
    b.f.window->showStep(Step::Trace);
    DiscLayer front(BenchLayer::Level::InFront, Qt::red);
    DiscLayer sheet(BenchLayer::Level::OnSheet, Qt::green);
    DiscLayer over(BenchLayer::Level::OverOutlines, Qt::blue);
    b.f.window->bench().addLayer(&front);
    b.f.window->bench().addLayer(&sheet);
    b.f.window->bench().addLayer(&over);
    QCOMPARE(b.at({160, 160}), QColor(Qt::red));
    front.place = {-50, -50};
    QCOMPARE(b.at({160, 160}), QColor(Qt::green));
    b.f.window->bench().setPeek(true);  // the picture alone, and what lies on its sheet
    sheet.place = {-50, -50};
    emit sheet.changed();
    QVERIFY(b.at({160, 160}) != QColor(Qt::blue));
    b.f.window->bench().setPeek(false);
    QCOMPARE(b.at({160, 160}), QColor(Qt::blue));
  }

  void aLayerThatIsGoneIsNotPainted() {
    BenchWithBadge b;
    QVERIFY(b.opened);
    auto layer = std::make_unique<DiscLayer>(BenchLayer::Level::InFront, Qt::red);
    b.f.window->bench().addLayer(layer.get());
    QCOMPARE(b.at({160, 160}), QColor(Qt::red));
    QTest::mousePress(&b.f.window->bench(), Qt::LeftButton, {}, b.screen({160, 160}));
    QVERIFY(layer->held);
    layer.reset();
    QTest::mouseMove(&b.f.window->bench(), b.screen({100, 100}));
    QTest::mouseRelease(&b.f.window->bench(), Qt::LeftButton, {}, b.screen({100, 100}));
    QVERIFY(b.at({160, 160}) != QColor(Qt::red));
  }

  void whatALayerHoldsIsDraggedAndLetGo() {
    BenchWithBadge b;
    QVERIFY(b.opened);
    b.f.window->showStep(Step::Trace);
    DiscLayer layer(BenchLayer::Level::OverOutlines, Qt::red);
    Bench& bench = b.f.window->bench();
    bench.addLayer(&layer);
    const auto before = bench.viewport();
    QTest::mousePress(&bench, Qt::LeftButton, {}, b.screen({160, 160}));
    QTest::mouseMove(&bench, b.screen({60, 60}));
    QVERIFY(layer.held);
    QTest::mouseRelease(&bench, Qt::LeftButton, {}, b.screen({60, 60}));
    QVERIFY(!layer.held);
    QVERIFY(std::abs(layer.place.x - 60) < 2 && std::abs(layer.place.y - 60) < 2);
    QCOMPARE(bench.viewport().origin, before.origin);  // the picture was not moved with it
    QTest::mousePress(&bench, Qt::LeftButton, {}, b.screen({60, 60}));
    QTest::keyClick(&bench, Qt::Key_Escape);
    QCOMPARE(layer.letGoes, 1);
    QTest::mouseRelease(&bench, Qt::LeftButton, {}, b.screen({60, 60}));
  }

  void allOfALayerIsInSightWhenAllIsShown() {
    BenchWithBadge b;
    QVERIFY(b.opened);
    DiscLayer layer(BenchLayer::Level::OnSheet, Qt::red);
    Bench& bench = b.f.window->bench();
    bench.addLayer(&layer);
    bench.fit();
    const double before = bench.viewport().scale;
    emit layer.changed();
    QCOMPARE(bench.viewport().scale, before);
    layer.wanted.include(rim::Point{0, 0});
    layer.wanted.include(rim::Point{900, 900});
    emit layer.changed();
    QVERIFY(bench.viewport().scale < before / 2);
  }
};

RIM_TEST(TestRooms)
#include "tst_rooms.moc"
