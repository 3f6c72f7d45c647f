#pragma once

#include "app/steps/refine/hand/handwork.h"
#include "app/steps/refine/hand/node_tool.h"
#include "app/steps/refine/hand/select_tool.h"
#include "app/steps/refine/refine_panel.h"
#include "app/widgets/fold.h"
#include "support/spoil.h"
#include "window_fixture.h"

namespace rim::test {

/// A window on a plate with a wobbly hole, a square that is not quite one, and a part beside it.
struct RefineFixture : WindowFixture {
  RefineFixture() { show(plate()); }
  explicit RefineFixture(const Drawing& drawing) { show(drawing); }

  static Drawing plate() {
    std::vector<Point> ring;
    for (int i = 0; i < 60; ++i) {
      const double a = 2 * M_PI * i / 60;
      ring.push_back(Point{30, 30} + Point{std::cos(a), std::sin(a)} * (10 + 0.05 * ((i * 7) % 3 - 1)));
    }
    return makeDrawing({polygonThrough({{0, 0}, {60, 0.1}, {60, 60}, {0.1, 60}}), polygonThrough(ring),
                        polygonThrough({{80, 0}, {120, 0}, {120, 39}, {119, 40}, {80, 40}})});
  }

  void show(const Drawing& drawing) {
    const QString file = folder.filePath("plate.dxf");
    io::writeDrawing(drawing, file.toStdString(), {});
    QVERIFY(openDrawing(file));
    window->show();
    window->showStep(app::Step::Refine);
    for (app::Fold* fold : window->findChildren<app::Fold*>()) fold->setOpen(true);
    window->bench().fit();
  }

  app::RefinePanel& panel() { return *window->findChild<app::RefinePanel*>(); }
  app::Handwork& hand() { return panel().handwork(); }
  bool offered() {
    return settle() && QTest::qWaitFor([this] { return panel().offers() != nullptr; }, kPatienceMs);
  }
  /// Waits until what was done is in the drawing; what is ticked or typed in a list is done a moment later.
  bool done() {
    QTest::qWait(1);
    return settle() && QTest::qWaitFor([this] { return session().upToDate(); }, kPatienceMs);
  }
  void key(int key, Qt::KeyboardModifiers keys = {}) {
    QTest::keyClick(&window->bench(), static_cast<Qt::Key>(key), keys);
  }
  QPoint onScreen(Point mm) { return window->bench().viewport().toScreen(mm * (1 / job::mmPerPixel(job()))).toPoint(); }
  void click(Point mm, Qt::KeyboardModifiers keys = {}) {
    QTest::mouseClick(&window->bench(), Qt::LeftButton, keys, onScreen(mm));
  }
  void drag(Point from, Point to) {
    QTest::mousePress(&window->bench(), Qt::LeftButton, {}, onScreen(from));
    QTest::mouseMove(&window->bench(), onScreen(lerp(from, to, 0.5)));
    QTest::mouseMove(&window->bench(), onScreen(to));
    QTest::mouseRelease(&window->bench(), Qt::LeftButton, {}, onScreen(to));
  }
  Drawing now() { return job::drawingOf(job()); }
};

}  // namespace rim::test
