// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/monkey.h"

#include <QAbstractButton>
#include <QAction>
#include <QComboBox>
#include <QMenu>
#include <QWheelEvent>

namespace inchpeg::app
{

namespace
{

constexpr qsizetype kToldEvents = 40;
constexpr int kKeys[] = {Qt::Key_Up,      Qt::Key_Down,   Qt::Key_Left,     Qt::Key_Right, Qt::Key_Tab,
                         Qt::Key_Backtab, Qt::Key_Return, Qt::Key_Escape,   Qt::Key_Space, Qt::Key_Delete,
                         Qt::Key_Home,    Qt::Key_End,    Qt::Key_F2,       Qt::Key_1,     Qt::Key_2,
                         Qt::Key_3,       Qt::Key_4,      Qt::Key_PageDown, Qt::Key_5,     Qt::Key_Period,
                         Qt::Key_Comma,   Qt::Key_A,      Qt::Key_Backspace};
constexpr const char *kTexts[] = {"5.02", "402",      "10,02",   "standing", "-1", "1e99",
                                  "nan",  "<b>x</b>", "%1 & %2", "250; 260", "A1", "\xC2\xB0"};
/// Windows of the desktop itself are not the monkey's.
constexpr const char *kLeftAlone[] = {"quit", "closeWindow"};

bool isLeftAlone(const QObject &object)
{
    return std::any_of(std::begin(kLeftAlone), std::end(kLeftAlone),
                       [&](const char *name) { return object.objectName() == QLatin1String(name); });
}

QString nameOf(const QWidget &widget)
{
    return QStringLiteral("%1 %2").arg(QLatin1String(widget.metaObject()->className()), widget.objectName());
}

} // namespace

void Monkey::note(const QString &what)
{
    m_last << what;
    if (m_last.size() > kToldEvents)
        m_last.removeFirst();
}

QWidget *Monkey::anyWidget()
{
    QWidget *window = QApplication::activePopupWidget();
    if (window == nullptr) {
        QWidgetList windows;
        for (QWidget *one : QApplication::topLevelWidgets()) {
            if (one->isVisible() && (one->windowType() == Qt::Window || one->windowType() == Qt::Dialog))
                windows << one;
        }
        if (windows.isEmpty())
            return nullptr;
        window =
            m_random.below(4) > 0
                ? &m_app.window()
                : windows[static_cast<qsizetype>(m_random.below(static_cast<std::size_t>(windows.size())))];
    }
    QWidgetList widgets;
    for (QWidget *widget : window->findChildren<QWidget *>()) {
        if (widget->isVisible() && widget->isEnabled() && !widget->visibleRegion().isEmpty() &&
            !isLeftAlone(*widget))
            widgets << widget;
    }
    if (widgets.isEmpty())
        return window;
    return widgets[static_cast<qsizetype>(m_random.below(static_cast<std::size_t>(widgets.size())))];
}

QPoint Monkey::pointIn(const QWidget &widget)
{
    const QRect seen = widget.visibleRegion().boundingRect();
    const auto along = [&](int low, int length) {
        return low + static_cast<int>(m_random.below(static_cast<std::size_t>(std::max(1, length))));
    };
    return {along(seen.left(), seen.width()), along(seen.top(), seen.height())};
}

void Monkey::click()
{
    QWidget *widget = anyWidget();
    if (widget == nullptr)
        return;
    const QPoint at = pointIn(*widget);
    note(QStringLiteral("click %1 at %2,%3").arg(nameOf(*widget)).arg(at.x()).arg(at.y()));
    if (m_random.below(6) == 0)
        QTest::mouseDClick(widget, Qt::LeftButton, {}, at);
    else
        QTest::mouseClick(widget, Qt::LeftButton, {}, at);
}

void Monkey::press()
{
    QWidget *widget = QApplication::focusWidget();
    if (widget == nullptr || !widget->isVisible())
        widget = &m_app.window();
    const int key = kKeys[m_random.below(std::size(kKeys))];
    const Qt::KeyboardModifiers modifiers = m_random.below(8) == 0   ? Qt::ShiftModifier
                                            : m_random.below(8) == 0 ? Qt::AltModifier
                                                                     : Qt::NoModifier;
    note(QStringLiteral("key %1 (%2) in %3").arg(key).arg(static_cast<int>(modifiers)).arg(nameOf(*widget)));
    QTest::keyClick(widget, static_cast<Qt::Key>(key), modifiers);
}

void Monkey::type()
{
    QWidget *widget = QApplication::focusWidget();
    if (widget == nullptr || !widget->isVisible())
        return;
    const QString text = QString::fromUtf8(kTexts[m_random.below(std::size(kTexts))]);
    note(QStringLiteral("type %1 in %2").arg(text, nameOf(*widget)));
    for (const QChar c : text) {
        QWidget *now = QApplication::focusWidget();
        QTest::keyClick(now != nullptr && now->isVisible() ? now : &m_app.window(), c.toLatin1());
    }
}

void Monkey::wheel()
{
    QWidget *widget = anyWidget();
    if (widget == nullptr)
        return;
    const QPoint at = pointIn(*widget);
    const int turn = m_random.below(2) == 0 ? 120 : -120;
    note(QStringLiteral("wheel %1 on %2").arg(turn).arg(nameOf(*widget)));
    QWheelEvent event(at, widget->mapToGlobal(at), {}, {0, turn}, Qt::NoButton,
                      m_random.below(4) == 0 ? Qt::ControlModifier : Qt::NoModifier, Qt::NoScrollPhase,
                      false);
    QApplication::sendEvent(widget, &event);
}

void Monkey::drag()
{
    QWidget *widget = anyWidget();
    if (widget == nullptr)
        return;
    const QPoint from = pointIn(*widget);
    const QPoint to = pointIn(*widget);
    note(QStringLiteral("drag in %1 from %2,%3 to %4,%5")
             .arg(nameOf(*widget))
             .arg(from.x())
             .arg(from.y())
             .arg(to.x())
             .arg(to.y()));
    QPointer<QWidget> held = widget;
    QTest::mousePress(widget, Qt::LeftButton, {}, from);
    if (held)
        QTest::mouseMove(widget, (from + to) / 2);
    if (held)
        QTest::mouseRelease(widget, Qt::LeftButton, {}, to);
}

void Monkey::stormOfUndo()
{
    note(QStringLiteral("undo storm"));
    for (int i = 0; i < 12; ++i)
        QTest::keyClick(&m_app.window(), Qt::Key_Z,
                        m_random.below(3) == 0 ? Qt::ControlModifier | Qt::ShiftModifier
                                               : Qt::KeyboardModifiers(Qt::ControlModifier));
}

/// An entry of a choice, as its list would be used.
void Monkey::choose()
{
    QList<QComboBox *> boxes;
    for (QComboBox *box : m_app.window().findChildren<QComboBox *>()) {
        if (box->isVisible() && box->isEnabled() && box->count() > 0)
            boxes << box;
    }
    if (boxes.isEmpty())
        return;
    QPointer<QComboBox> box =
        boxes[static_cast<qsizetype>(m_random.below(static_cast<std::size_t>(boxes.size())))];
    const int index = static_cast<int>(m_random.below(static_cast<std::size_t>(box->count())));
    note(QStringLiteral("choose %1 of %2").arg(index).arg(nameOf(*box)));
    box->setCurrentIndex(index);
    if (box)
        emit box->activated(index);
}

void Monkey::switchStudyOrLens()
{
    ProjectSession &session = m_app.session();
    if (m_random.below(2) == 0 && !session.studies().empty()) {
        const StudyId id = session.studies()[m_random.below(session.studies().size())].id;
        note(QStringLiteral("study %1").arg(id.value));
        EXPECT_TRUE(session.selectStudy(id));
        return;
    }
    const Lens lens =
        std::array{Lens::Plan, Lens::Log, Lens::Read, Lens::Compare, Lens::Decide}[m_random.below(5)];
    note(QStringLiteral("lens %1").arg(static_cast<int>(lens)));
    session.setLens(lens);
}

void Monkey::closePopups()
{
    while (QWidget *popup = QApplication::activePopupWidget())
        popup->close();
}

void Monkey::act()
{
    switch (m_random.below(20)) {
    case 0:
    case 1:
    case 2:
    case 3:
    case 4:
    case 5:
    case 6:
        click();
        break;
    case 7:
    case 8:
    case 9:
    case 10:
        press();
        break;
    case 11:
    case 12:
        type();
        break;
    case 13:
        wheel();
        break;
    case 14:
        drag();
        break;
    case 15:
        stormOfUndo();
        break;
    case 16:
    case 17:
        choose();
        break;
    case 18:
        switchStudyOrLens();
        break;
    default:
        closePopups();
    }
    QCoreApplication::processEvents();
    if (!m_app.window().isVisible())
        m_app.window().show();
    if (m_random.below(25) == 0)
        m_app.window().grab();
}

} // namespace inchpeg::app
