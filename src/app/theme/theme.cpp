// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/theme/theme.h"

#include "app/theme/plain_texts.h"

#include <QApplication>
#include <QFont>
#include <QFontDatabase>
#include <QPalette>
#include <QStyleFactory>

namespace inchpeg::app
{

namespace
{

Theme &worn()
{
    static Theme theme = paperTheme();
    return theme;
}

QPalette paletteOf(const Theme &theme)
{
    QPalette palette;
    palette.setColor(QPalette::Window, theme.ground);
    palette.setColor(QPalette::WindowText, theme.ink);
    palette.setColor(QPalette::Base, theme.sheet);
    palette.setColor(QPalette::AlternateBase, theme.ground);
    palette.setColor(QPalette::Text, theme.ink);
    palette.setColor(QPalette::PlaceholderText, theme.softInk);
    palette.setColor(QPalette::Button, theme.ground);
    palette.setColor(QPalette::ButtonText, theme.ink);
    palette.setColor(QPalette::Highlight, theme.accent);
    palette.setColor(QPalette::HighlightedText, theme.onAccent);
    palette.setColor(QPalette::ToolTipBase, theme.sheet);
    palette.setColor(QPalette::ToolTipText, theme.ink);
    palette.setColor(QPalette::Link, theme.accent);
    palette.setColor(QPalette::Light, theme.sheet.lighter(108));
    palette.setColor(QPalette::Mid, theme.line);
    palette.setColor(QPalette::Dark, theme.line.darker(120));
    for (const QPalette::ColorRole role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
        palette.setColor(QPalette::Disabled, role, theme.softInk);
    return palette;
}

QString styleSheetOf(const Theme &theme)
{
    const auto name = [](const QColor &colour) { return colour.name(); };
    return QStringLiteral(
               "QToolTip { background: %1; color: %2; border: 1px solid %3; padding: 5px; }"
               "QLineEdit, QComboBox, QSpinBox, QDoubleSpinBox, QPlainTextEdit { background: %1; color: %2; "
               "  border: 1px solid %3; border-radius: 4px; padding: 4px 6px; min-height: 20px; }"
               "QLineEdit:focus, QComboBox:focus, QSpinBox:focus, QDoubleSpinBox:focus { border: 2px solid "
               "%4; padding: 3px 5px; }"
               "QComboBox { padding-right: 2px; }"
               "QComboBox::drop-down { border: 0; width: 22px; }"
               "QComboBox::down-arrow { image: url(:/icons/chevron-%9.svg); width: 12px; height: 12px; }"
               "QPushButton { background: %1; color: %2; border: 1px solid %3; border-radius: 4px; padding: "
               "6px 14px; }"
               "QPushButton:hover { border-color: %4; }"
               "QPushButton:focus { border: 2px solid %4; padding: 5px 13px; }"
               "QPushButton:disabled { color: %6; }"
               "QPushButton[primary=\"true\"] { background: %4; color: %5; border-color: %4; font-weight: "
               "600; }"
               "QPushButton[primary=\"true\"]:disabled { background: %3; border-color: %3; color: %6; }"
               "QPushButton[lens=\"true\"] { background: transparent; border: 0; border-bottom: 3px solid "
               "transparent; "
               "  border-radius: 0; padding: 7px 14px; }"
               "QPushButton[lens=\"true\"]:checked { border-bottom: 3px solid %4; font-weight: 600; }"
               "QPushButton[lens=\"true\"]:focus { background: %1; }"
               "QPushButton[step=\"true\"] { background: transparent; border: 0; border-top: 2px solid %3; "
               "  border-radius: 0; padding: 6px 3px; }"
               "QPushButton[step=\"true\"]:checked { border-top: 3px solid %4; background: %1; font-weight: "
               "600; }"
               "QPushButton[step=\"true\"]:focus { text-decoration: underline; }"
               "QPushButton[plain=\"true\"] { border: 0; background: transparent; color: %4; text-align: "
               "left; "
               "padding: 3px 2px; }"
               "QPushButton[plain=\"true\"]:focus { border: 0; text-decoration: underline; }"
               "QPushButton[slim=\"true\"] { padding: 1px 7px; }"
               "QCheckBox::indicator { width: 14px; height: 14px; border: 1px solid %6; border-radius: 3px; "
               "  background: %1; }"
               "QCheckBox::indicator:checked { background: %4; border-color: %4; "
               "  image: url(:/icons/tick-%9.svg); }"
               "QCheckBox::indicator:focus { border: 2px solid %4; }"
               "QHeaderView::section { background: %7; color: %6; border: 0; border-bottom: 1px solid %3; "
               "padding: 5px 6px; }"
               "QTableView::item { padding: 0 6px; }"
               "QTableView { background: %1; color: %2; gridline-color: %3; border: 1px solid %3; "
               "  selection-background-color: %4; selection-color: %5; }"
               "QMenuBar { background: %7; } QMenuBar::item:selected, QMenu::item:selected { background: %4; "
               "color: %5; }"
               "QMenu { background: %1; border: 1px solid %3; } QMenu::item { padding: 5px 26px 5px 22px; }"
               "QLabel[role=\"soft\"] { color: %6; }"
               "QLabel[role=\"warning\"] { color: %8; }"
               "QLabel[role=\"heading\"] { font-weight: 600; }"
               "QStatusBar { color: %6; }")
        .arg(name(theme.sheet), name(theme.ink), name(theme.line), name(theme.accent), name(theme.onAccent),
             name(theme.softInk), name(theme.ground), name(theme.warning),
             theme.kind == ThemeKind::Paper ? QStringLiteral("paper") : QStringLiteral("workshop"));
}

} // namespace

Theme paperTheme()
{
    Theme theme;
    theme.kind = ThemeKind::Paper;
    theme.ground = QColor(0xEF, 0xEB, 0xE2);
    theme.sheet = QColor(0xFB, 0xF9, 0xF4);
    theme.ink = QColor(0x1F, 0x25, 0x2B);
    theme.softInk = QColor(0x5C, 0x62, 0x66);
    theme.line = QColor(0xCF, 0xC9, 0xBB);
    theme.rail = QColor(0xDE, 0xD3, 0xBC);
    theme.hole = QColor(0xB9, 0xAC, 0x90);
    theme.accent = QColor(0x0B, 0x66, 0x70);
    theme.onAccent = QColor(0xFF, 0xFF, 0xFF);
    theme.warning = QColor(0x97, 0x3A, 0x12);
    theme.railInks = {QColor(0x2A, 0x3B, 0x4D), QColor(0xA8, 0x5B, 0x1C), QColor(0x4E, 0x6B, 0x2E),
                      QColor(0x7A, 0x3E, 0x68), QColor(0x3D, 0x7F, 0xA6), QColor(0x8A, 0x7A, 0x2B)};
    return theme;
}

Theme workshopTheme()
{
    Theme theme;
    theme.kind = ThemeKind::Workshop;
    theme.ground = QColor(0x1B, 0x1E, 0x20);
    theme.sheet = QColor(0x24, 0x28, 0x2A);
    theme.ink = QColor(0xE4, 0xE0, 0xD6);
    theme.softInk = QColor(0xA5, 0xA6, 0xA0);
    theme.line = QColor(0x45, 0x4A, 0x4C);
    theme.rail = QColor(0x4A, 0x44, 0x39);
    theme.hole = QColor(0x15, 0x17, 0x18);
    theme.accent = QColor(0x5E, 0xC2, 0xC8);
    theme.onAccent = QColor(0x0E, 0x18, 0x1A);
    theme.warning = QColor(0xF0, 0x9A, 0x6A);
    theme.railInks = {QColor(0xA9, 0xBE, 0xD6), QColor(0xE2, 0xA0, 0x5F), QColor(0xA6, 0xC6, 0x7C),
                      QColor(0xD0, 0x93, 0xC0), QColor(0x7F, 0xC0, 0xE4), QColor(0xD9, 0xC7, 0x6B)};
    return theme;
}

const Theme &currentTheme()
{
    return worn();
}

void wearTheme(QApplication &application, const Theme &theme, double fontSize)
{
    worn() = theme;
    if (application.findChild<PlainTexts *>() == nullptr)
        application.installEventFilter(new PlainTexts(&application));
    QApplication::setStyle(QStyleFactory::create(QStringLiteral("Fusion")));
    QFont font = QApplication::font();
    if (QFontDatabase::families().contains(QStringLiteral("Noto Sans")))
        font.setFamily(QStringLiteral("Noto Sans"));
    font.setPointSizeF(fontSize);
    QApplication::setFont(font);
    QApplication::setPalette(paletteOf(theme));
    application.setStyleSheet(styleSheetOf(theme));
}

QVector<qreal> railDashes(int railIndex)
{
    static const QVector<QVector<qreal>> kDashes = {{}, {7, 3}, {2, 3}, {9, 3, 2, 3}, {12, 4}, {4, 2}};
    return kDashes[railIndex % kDashes.size()];
}

QColor railInk(const Theme &theme, int railIndex)
{
    return theme.railInks[railIndex % theme.railInks.size()];
}

} // namespace inchpeg::app
