// What the window shows before anything is open.

#include <QPushButton>
#include <QScreen>
#include <QStackedWidget>
#include <QToolButton>

#include "app/start/start_page.h"
#include "app/start/thumbnails.h"
#include "support/test_list.h"
#include "window_fixture.h"

using namespace rim;
using namespace rim::app;
using namespace rim::test;

class TestStartPage : public QObject {
  Q_OBJECT

 private slots:
  void initTestCase() { QStandardPaths::setTestModeEnabled(true); }

  void itStandsInPlaceOfAnEmptyBench() {
    WindowFixture f;
    auto* page = f.find<StartPage>("startPage");
    QVERIFY(page->isVisible() && !f.window->bench().isVisible());
    QVERIFY(f.find<QPushButton>("startOpen")->hasFocus());
    QVERIFY(f.open(demoFile("badge.png")));
    QVERIFY(!page->isVisible() && f.window->bench().isVisible());
    // Taken back, it is there again, and offers what was opened.
    f.window->actions().undo->trigger();
    QVERIFY(f.settle());
    QVERIFY(page->isVisible());
    auto* recent = f.find<QToolButton>("recent:badge.png");
    QVERIFY(recent != nullptr && !recent->icon().isNull());
    QVERIFY(!savedThumbnail(demoFile("badge.png")).isNull());
    recent->click();
    QVERIFY(QTest::qWaitFor([&f] { return f.session().hasWork(); }, kPatienceMs));
    QVERIFY(f.settle());
    QCOMPARE(f.job().original.name, std::string("badge.png"));
  }

  void everyDemoOpens_data() {
    QTest::addColumn<QString>("demo");
    for (const char* demo :
         {"badge.jpg", "window-card-photo.jpg", "weather-vane.png", "swallow.jpg", "spool-plate.dxf"})
      QTest::newRow(demo) << demo;
  }
  void everyDemoOpens() {
    QFETCH(QString, demo);
    WindowFixture f;
    auto* button = f.find<QToolButton>(qPrintable("demo:" + demo));
    QVERIFY(button != nullptr && !button->icon().isNull());
    button->setFocus();
    QTest::keyClick(button, Qt::Key_Space);
    QVERIFY(QTest::qWaitFor([&f] { return f.session().hasWork(); }, kPatienceMs));
    QVERIFY(f.settle());
    QVERIFY(f.job().tracing && !f.job().tracing->outlines.empty());
  }

  void whatWentWrongIsSaidThere() {
    WindowFixture f;
    f.window->openFile(testPicture("not-a-picture.png"));
    QVERIFY(f.settle());
    QVERIFY(f.find<StartPage>("startPage")->isVisible());
    QVERIFY2(f.window->sentence().contains("not-a-picture.png"), qPrintable(f.window->sentence()));
    QVERIFY(f.find<QWidget>("notice")->isVisible());
  }

  void filesThatAreGoneAreNotOffered() {
    WindowFixture f;
    f.find<StartPage>("startPage")->showRecent({f.folder.filePath("gone.png"), demoFile("badge.png")});
    QVERIFY(f.find<QToolButton>("recent:gone.png") == nullptr);
    QVERIFY(f.find<QToolButton>("recent:badge.png") != nullptr);
  }

  void theFirstWindowFitsItsScreen() {
    WindowFixture f;
    const QSize screen = f.window->screen()->availableSize();
    // With its title bar; on a screen that is too small for all of it as small as it can be.
    const QSize least = f.window->minimumSizeHint();
    QVERIFY(f.window->width() <= std::max(least.width(), screen.width()));
    QVERIFY(f.window->height() <= std::max(least.height(), screen.height() - 40));
    // And on one of 1280 x 800 in every case.
    QVERIFY2(least.width() <= 1280 && least.height() <= 752,
             qPrintable(QString("%1 x %2").arg(least.width()).arg(least.height())));
  }
};

RIM_TEST(TestStartPage)
#include "tst_start_page.moc"
