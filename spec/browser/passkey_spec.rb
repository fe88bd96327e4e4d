# frozen_string_literal: true

require "puma"
require_relative "../support/browser"

# A server that others reach by a name with TLS: a passkey is made under Settings and opens the door.
RSpec.describe "A passkey", :browser, type: :feature do
  word = "reeds on the north shore"

  # A server of its own with a certificate for a day: [the address, what ends it].
  def by_name
    port = TCPServer.open("127.0.0.1", 0) { |socket| socket.addr[1] }
    home = "https://gorvant.test:#{port}"
    served = ServerBench.build(opening: Gorvant::Server::Opening.new(bind: "127.0.0.1", public_url: home))
    server = Puma::Server.new(served, nil, min_threads: 1, max_threads: 4)
    server.add_ssl_listener("127.0.0.1", port, certified)
    server.run
    [home, server]
  end

  def certified
    key = OpenSSL::PKey::RSA.new(2048)
    certificate = OpenSSL::X509::Certificate.new
    certificate.subject = certificate.issuer = OpenSSL::X509::Name.parse("/CN=gorvant.test")
    certificate.not_before = Time.now - 60
    certificate.not_after = Time.now + 86_400
    certificate.public_key = key.public_key
    certificate.sign(key, "SHA256")
    Puma::MiniSSL::Context.new.tap do |context|
      context.key_pem = key.to_pem
      context.cert_pem = certificate.to_pem
    end
  end

  # A device that knows its person, whenever it is asked.
  def authenticator
    options =
      Selenium::WebDriver::VirtualAuthenticatorOptions.new(
        resident_key: true,
        user_verification: true,
        user_verified: true
      )
    page.driver.browser.add_virtual_authenticator(options)
  end

  def fill(testid, text) = find("[data-testid=#{testid}]").fill_in(with: text)

  before do
    hash = Gorvant::Server::Door.password_hash(word)
    db[:users].where(id: ServerBench.viewer.user_id).update(sign_in_name: "wren", password_hash: hash)
    @home, @server = by_name
  end

  after do
    @server.stop(true)
    ServerBench.alone
  end

  it "is made with the password, opens without it, and opens nothing once it is taken off" do
    Capybara.using_driver(:chromium_by_name) do
      visit "#{@home}/"
      device = authenticator
      fill("sign-in-name", "wren")
      fill("sign-in-password", word)
      click_button("Sign in", exact: true)
      find("[data-testid=who]").click
      fill("passkey-name", "Phone in the van")
      fill("passkey-password", "not the password")
      click_button("Make a passkey")
      expect(find("[data-testid=passkeys]")).to have_text("this name and password do not fit together")
      expect(page).to have_no_css("[data-testid=signed-out]")
      fill("passkey-password", word)
      click_button("Make a passkey")
      expect(find("[data-testid=passkeys]")).to have_text("Phone in the van gorvant.test, made just now, not used yet")
      fill("passkey-name", "Again")
      fill("passkey-password", word)
      click_button("Make a passkey")
      expect(find("[data-testid=passkeys]")).to have_text("has a passkey of this account already")

      find("[data-testid=sign-out]").click
      find("[data-testid=sign-in-passkey]").click
      expect(page).to have_css("h1", text: "Day sheet")

      find("[data-testid=who]").click
      expect(find("[data-testid=passkeys]")).to have_text("last used")
      find("[data-testid=passkey-off]").click
      find(".el-popconfirm button", text: "Take it off").click
      expect(find("[data-testid=passkeys]")).to have_no_text("Phone in the van")
      find("[data-testid=sign-out]").click
      find("[data-testid=sign-in-passkey]").click
      expect(page).to have_text("this passkey opens nothing here")
      device.remove!
      expect(complaints.reject { |one| one.include?("401") || one.include?("certificate") }).to eq([])
    end
  end

  it "is no word of where a server has no such name" do
    browse_as(nil)
    visit "/"
    expect(page).to have_css("[data-testid=sign-in]")
    expect(page).to have_no_css("[data-testid=sign-in-passkey]")
    browse_as(ServerBench.viewer.user_id)
    visit "/settings/account"
    expect(page).to have_css("[data-testid=code-begin]")
    expect(page).to have_no_css("[data-testid=passkeys]")
    expect(page).to have_no_css(".el-form-item.is-error") # nothing is wrong before anybody typed
  end
end
