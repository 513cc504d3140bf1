// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QWidget>

#include <optional>

namespace inchpeg::app
{

/// Where the hammer of a pendulum stands, and how far it went.
class HammerPicture : public QWidget
{
    Q_OBJECT
public:
    explicit HammerPicture(QWidget *parent = nullptr);
    /// Angles in degrees from hanging; through: of the swing that was found, on the side that it went to.
    void show(std::optional<double> angle_deg, std::optional<double> through_deg);
    [[nodiscard]] QSize sizeHint() const override { return {400, 260}; }

protected:
    void paintEvent(QPaintEvent *event) override;

private:
    std::optional<double> m_angle_deg;
    std::optional<double> m_through_deg;
};

} // namespace inchpeg::app
